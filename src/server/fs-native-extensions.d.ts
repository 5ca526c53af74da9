/** The part of the package that is used: a lock of the operating system on an open file. */
declare module "fs-native-extensions" {
  export function tryLock(descriptor: number): boolean;
}
