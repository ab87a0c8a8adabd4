/** Where class-transformer keeps which class a property is of; the package ships the types under another path. */
declare module 'class-transformer/cjs/storage.js' {
  export { defaultMetadataStorage } from 'class-transformer/types/storage.js';
}
