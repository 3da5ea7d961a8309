/**
 * What server and page must agree on has a number. It rises when a page must know more than before to show the bar truly: a new
 * word of an order, a new kind of event. The server says it with the state and with every beat; a page with a lower one tells
 * its people so and loads the new app.
 *
 * 1: until 0.2 was in work, and whatever says nothing of it. 2: allergies, wishes, several additions. 3: cards of version 3
 * (`recipe/card-version`), which an earlier page computes otherwise. 4: devices say `simulated`. 5: a sample may
 * have a filter or a recipe of its own. 6: an order may say its till, and that its name is shown.
 */
export const CONTRACT_VERSION = 6;
