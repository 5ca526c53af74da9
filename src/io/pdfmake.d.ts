declare module 'pdfmake';
