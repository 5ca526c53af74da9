export { Dimensions, type Dimension } from "./dimensions";
