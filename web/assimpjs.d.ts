/** The parts of assimpjs that our tests use; it has no types of its own. */
declare module 'assimpjs' {
  interface FileList {
    AddFile(name: string, content: Uint8Array): void;
  }
  interface Result {
    IsSuccess(): boolean;
    GetErrorCode(): string;
    GetFile(index: number): { GetContent(): Uint8Array };
  }
  interface Assimp {
    FileList: new () => FileList;
    ConvertFileList(files: FileList, format: 'assjson'): Result;
  }
  export default function assimpjs(): Promise<Assimp>;
}
