import { NewRecipe } from '../../places/recipes/places';

export default NewRecipe;
