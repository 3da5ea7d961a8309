import { ImportRecipes } from '../../places/recipes/places';

export default ImportRecipes;
