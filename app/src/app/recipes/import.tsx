import { ImportRecipes } from '../../places/recipes/import';

export default ImportRecipes;
