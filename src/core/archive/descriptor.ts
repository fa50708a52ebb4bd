/** The file of a Data Package that describes all the others. */
export const DESCRIPTOR = 'datapackage.json';
