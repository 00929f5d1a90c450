import { Color, Vector3 } from 'three';
import { roleColour } from '../styles/roles';

/** Of a role, as written, not converted: what is laid over a drawing works on displayed colours. */
export function shownColour(role: `--${string}`): Vector3 {
  const c = new Color(roleColour(role)).convertLinearToSRGB();
  return new Vector3(c.r, c.g, c.b);
}
