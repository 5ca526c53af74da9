declare module "pdfmake";
