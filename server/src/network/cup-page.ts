/** A guest's own page: one order, live, by an address that cannot be guessed. It needs no app and no trust in the bar's authority. */
import express, { type Router } from 'express';
import { page } from './page';

export function cupPages(): Router {
  const routes = express.Router();
  routes.get('/cup/page.js', (_request, response) => void response.type('text/javascript').send(SCRIPT));
  routes.get('/cup/:key', (_request, response) => {
    response.set('Cache-Control', 'no-store').type('html').send(PAGE);
  });
  return routes;
}

/** What it says. The script reads them from the page, so that they stand once. */
const WORDS = {
  readyAbout: 'Ready about',
  ready: 'Ready now',
  readySome: 'of them ready',
  soon: 'In line',
  fetched: 'Fetched. Enjoy it.',
  left: 'Nothing is being made of this order.',
  over: 'This order is over.',
  away: 'No news from the bar since',
  waiting: 'waits',
  brewing: 'is being brewed',
  cupReady: 'is ready',
  cupFetched: 'was fetched',
  cancelled: 'was cancelled',
};

const words = Object.entries(WORDS)
  .map(([name, text]) => `data-${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}="${text}"`)
  .join(' ');

const PAGE = page(
  'Your order',
  `<div id="cup" ${words}><p id="bar" class="quiet"></p>
  <svg id="badge" viewBox="0 0 120 120" width="120" height="120" role="img" aria-label="Your order"><circle cx="60" cy="60" r="54" fill="none" stroke="currentColor" stroke-width="6"/><circle id="inner" cx="60" cy="60" r="43" fill="none" stroke="currentColor" stroke-width="5" visibility="hidden"/><text id="letter" x="60" y="78" text-anchor="middle" font-size="52" font-weight="700" fill="currentColor"></text></svg>
  <div role="status" aria-live="polite"><p id="when" class="quiet"></p><p id="time" class="time"></p></div>
  <ul id="cups"></ul><p id="away" class="quiet"></p><noscript>This page needs scripts to follow your order.</noscript></div>
  <style>#cup{text-align:center;padding-top:24px}.quiet{color:var(--ink2);margin:8px 0}.time{font-size:56px;font-weight:700;line-height:1.1;margin:0}#cups{list-style:none;padding:0;margin:24px 0}#cups li{display:block;padding:6px 0;border-top:1px solid var(--rim)}</style>`,
  '/cup/page.js',
);

/** Plain script for any phone's browser: it shows what the stream says, and since when it says nothing. */
const SCRIPT = `'use strict';
(function () {
  var key = location.pathname.split('/')[2];
  var at = function (id) { return document.getElementById(id); };
  var said = at('cup').dataset;
  var heardMs = Date.now();
  var isOver = false;
  var dashes = { dashed: '20 14', dotted: '6 12' };
  var clock = function (ms) {
    return new Date(ms).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  };
  function show(order) {
    at('bar').textContent = order.barName;
    at('letter').textContent = order.badge.letter;
    at('badge').setAttribute('aria-label', order.badge.letter);
    at('badge').querySelector('circle').setAttribute('stroke-dasharray', dashes[order.badge.stroke] || 'none');
    at('inner').setAttribute('visibility', order.badge.stroke === 'double' ? 'visible' : 'hidden');
    var cups = order.cups.filter(function (cup) { return cup.status !== 'cancelled'; });
    var ready = cups.filter(function (cup) { return cup.status === 'ready'; }).length;
    var fetched = cups.filter(function (cup) { return cup.status === 'fetched'; }).length;
    var when = '', time = '';
    if (cups.length === 0) when = said.left;
    else if (fetched === cups.length) when = said.fetched;
    else if (ready > 0 && ready + fetched === cups.length) time = said.ready;
    else if (order.readyMs === null) when = said.soon;
    else { when = said.readyAbout; time = clock(order.readyMs); }
    if (ready > 0 && time !== said.ready) when = ready + ' ' + said.readySome + '. ' + when;
    at('when').textContent = when;
    at('time').textContent = time;
    var list = at('cups');
    list.textContent = '';
    var status = { waiting: said.waiting, brewing: said.brewing, ready: said.cupReady, fetched: said.cupFetched, cancelled: said.cancelled };
    order.cups.forEach(function (cup) {
      var line = document.createElement('li');
      line.textContent = cup.coffee + ' ' + status[cup.status];
      list.appendChild(line);
    });
  }
  function end() {
    isOver = true;
    at('when').textContent = said.over;
    at('time').textContent = at('away').textContent = at('cups').textContent = '';
  }
  function open() {
    var stream = new EventSource('/api/cups/' + encodeURIComponent(key) + '/live');
    stream.addEventListener('cup', function (message) { heardMs = Date.now(); show(JSON.parse(message.data)); });
    stream.addEventListener('beat', function () { heardMs = Date.now(); });
    stream.addEventListener('over', function () { stream.close(); end(); });
    stream.onerror = function () {
      if (stream.readyState !== 2 || isOver) return;
      fetch('/api/cups/' + encodeURIComponent(key)).then(function (answer) {
        if (answer.status === 404) return end();
        setTimeout(open, 5000);
      }, function () { setTimeout(open, 5000); });
    };
  }
  open();
  setInterval(function () {
    if (!isOver) at('away').textContent = Date.now() - heardMs > 10000 ? said.away + ' ' + clock(heardMs) + '.' : '';
  }, 1000);
})();
`;
