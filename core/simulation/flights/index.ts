export { Flight, type FlightShape } from './flight.ts';
export { Volley, type FlightHit } from './volley.ts';
