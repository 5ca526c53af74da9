import { table } from './table';

/** Usual sizes as a merchant lists them, as number texts in their own unit. */
export interface StockSizes { plateThickness: string[]; barWidth: string[]; roundDiameter: string[] }

export const stockSizes = table<{ unit: 'in' | 'mm' } & StockSizes>({
  source: 'usual merchant sizes; common practice, no source',
  checked: 'every text is a number and the lists rise, in tables.test.ts',
  rows: [
    { unit: 'in', plateThickness: ['1/8', '3/16', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8', '1', '1-1/4', '1-1/2', '2', '2-1/2', '3'], barWidth: ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2', '2-1/2', '3', '3-1/2', '4', '5', '6', '8', '10', '12'], roundDiameter: ['1/4', '3/8', '1/2', '5/8', '3/4', '7/8', '1', '1-1/8', '1-1/4', '1-1/2', '1-3/4', '2', '2-1/4', '2-1/2', '3', '3-1/2', '4', '5', '6', '8'] },
    { unit: 'mm', plateThickness: ['3', '4', '5', '6', '8', '10', '12', '15', '16', '20', '25', '30', '35', '40', '50', '60', '80'], barWidth: ['10', '12', '15', '20', '25', '30', '40', '50', '60', '70', '80', '90', '100', '110', '120', '130', '150', '160', '200', '250', '300', '320'], roundDiameter: ['6', '8', '10', '12', '14', '16', '18', '20', '22', '25', '28', '30', '32', '35', '40', '45', '50', '55', '60', '65', '70', '75', '80', '90', '100', '110', '120', '125', '130', '140', '150', '160', '180', '200', '220', '250'] },
  ],
});
