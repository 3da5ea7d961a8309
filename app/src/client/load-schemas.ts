/** The API's schemas come as a script of their own, when something is first read by them. */
export const loadSchemas = () => import('@even-kettle/core/contract/routes');
