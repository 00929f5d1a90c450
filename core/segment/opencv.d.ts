/** The parts of OpenCV that are used; its own types need a browser. */
declare module '@techstark/opencv-js' {
  interface Mat {
    data: Uint8Array;
    delete(): void;
  }
  interface OpenCv {
    Mat: new () => Mat;
    Rect: new (x: number, y: number, width: number, height: number) => object;
    matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
    grabCut(picture: Mat, mask: Mat, area: object, outside: Mat, inside: Mat, rounds: number, mode: number): void;
    CV_8UC1: number;
    CV_8UC3: number;
    CV_64FC1: number;
    GC_EVAL: number;
    onRuntimeInitialized: () => void;
  }
  const cv: OpenCv;
  export default cv;
}
