import { readFile, writeFile } from 'node:fs/promises';

/** The part of a lock file (version 3) that is read here. */
interface LockFile {
  packages: Record<string, { version?: string; license?: string; dev?: boolean; devOptional?: boolean }>;
}

/** Every package that ships, with its licence, as the lock file has them. */
export function noticeOf({ packages }: LockFile): string {
  const shipped = Object.entries(packages)
    .filter(([path, { dev }]) => path !== '' && !dev)
    .map(([path, { version, license }]) => ({
      name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
      version: version ?? '',
      license: license ?? 'see the package',
    }));
  const lines = [
    ...new Set(shipped.map(({ name, version, license }) => `${name} ${version}: ${license}`)),
  ].sort();
  return `Oculent is published under the MIT licence (LICENSE). It uses these packages of others, each under the licence named
beside it; the full texts lie in the packages (node_modules) and, for fonts and tables, in docs/licences.
Made from package-lock.json by \`npm run notice\`.

${lines.join('\n')}
`;
}

if (process.argv[1]?.endsWith('notice.ts')) {
  await writeFile('NOTICE', noticeOf(JSON.parse(await readFile('package-lock.json', 'utf8')) as LockFile));
}
