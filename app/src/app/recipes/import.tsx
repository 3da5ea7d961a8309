import { ImportRecipes } from '../../places/recipes/later';

export default ImportRecipes;
