/** The parts of the Data Package reference library that the tests use; it ships no types. */
declare module 'datapackage' {
  interface Resource {
    name: string;
    tabular: boolean;
    read(options: { keyed: boolean; relations: boolean }): Promise<Record<string, unknown>[]>;
  }
  export class Package {
    static load(descriptor: unknown, options: { basePath: string; strict: boolean }): Promise<Package>;
    readonly valid: boolean;
    readonly errors: Error[];
    readonly resources: Resource[];
  }
}
