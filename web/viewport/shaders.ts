/** GLSL of the view: matt clay lit from the upper left with a cool rim, and the picture that is laid over it. */

export const CLAY_VERTEX = /* glsl */ `
in float mask;
out float vMask;
out vec3 vNormal;
out vec3 vView;
#ifdef PIECES
out vec3 vTint;
#endif
#ifdef PAINTED
out vec2 vPlace;
#endif
void main() {
#ifdef PIECES
  // A piece may be narrowed: its normals are not turned as its places are.
  vec4 at = modelViewMatrix * instanceMatrix * vec4(position, 1.0);
  mat3 m = mat3(instanceMatrix);
  vec3 lengths = vec3(dot(m[0], m[0]), dot(m[1], m[1]), dot(m[2], m[2]));
  vNormal = normalMatrix * (m * (normal / lengths));
  vTint = instanceColor;
#else
  vec4 at = modelViewMatrix * vec4(position, 1.0);
  vNormal = normalMatrix * normal;
#ifdef PAINTED
  vPlace = uv;
#endif
#endif
  vView = at.xyz;
  vMask = mask;
  gl_Position = projectionMatrix * at;
}`;

/** Light goes with the eye, so that a form reads the same however it is turned. Linear inside, sRGB out. */
export const CLAY_FRAGMENT = /* glsl */ `
in float vMask;
in vec3 vNormal;
in vec3 vView;
#ifdef PIECES
in vec3 vTint;
uniform float ghost;
#elif defined(PAINTED)
in vec2 vPlace;
uniform sampler2D paint;
#endif
uniform vec3 clay;
uniform vec3 rim;
uniform float grazing;
uniform vec3 light;
uniform float facets;
uniform float gloss;
uniform float parallel;
out vec4 colour;
void main() {
  vec3 own = clay;
#ifdef PIECES
  // What isn't set down yet is seen through: every second pixel is what lies behind it.
  if (ghost > 0.5 && fract((floor(gl_FragCoord.x) + floor(gl_FragCoord.y)) * 0.5) > 0.25) discard;
  own = vTint.r < 0.0 ? clay : vTint;
#elif defined(PAINTED)
  // Rows of the picture run down; its colours are times cover.
  vec4 laid = texture(paint, vec2(vPlace.x, 1.0 - vPlace.y));
  own = clay * (1.0 - laid.a) + laid.rgb;
#endif
  vec3 n = facets > 0.5 ? normalize(cross(dFdx(vView), dFdy(vView))) : normalize(vNormal);
  vec3 eye = grazing > 0.5 || parallel > 0.5 ? vec3(0.0, 0.0, 1.0) : normalize(-vView);
  if (dot(n, eye) < 0.0) n = -n;
  vec3 key = normalize(light);
  float lit = max(0.0, (dot(n, key) + 0.12) / 1.12);
  float sky = 0.5 + 0.5 * n.y;
  float facing = max(0.0, dot(n, eye));
  float fill = max(0.0, dot(n, normalize(vec3(0.75, -0.45, 0.4))));
  vec3 warm = own * (vec3(1.18, 1.14, 1.08) * mix(1.0, 1.3, grazing) * lit + vec3(0.055, 0.06, 0.068) + vec3(0.07, 0.085, 0.1) * sky);
  vec3 cool = rim * (0.10 * fill + 0.34 * pow(1.0 - facing, 3.0) * (0.35 + 0.65 * fill));
  float shine = pow(max(0.0, dot(n, normalize(key + eye))), 28.0);
  vec3 sum = warm + cool + vec3(0.9, 0.92, 0.95) * gloss * shine * lit;
  // A gentle shoulder keeps lit slopes apart near white.
  sum = sum * (1.0 + sum * 0.18) / (1.0 + sum * 0.42);
  // Masked clay is dark and fine-hatched: seen at once, and its form still read.
  float hatch = step(0.5, fract((gl_FragCoord.x + gl_FragCoord.y) / 6.0));
  sum *= mix(vec3(1.0), vec3(0.20, 0.24, 0.27) * mix(0.86, 1.12, hatch), clamp(vMask, 0.0, 1.0));
  colour = vec4(pow(clamp(sum, 0.0, 1.0), vec3(1.0 / 2.2)), 1.0);
}`;

export const OVERLAY_VERTEX = /* glsl */ `
out vec2 vAt;
void main() {
  vAt = position.xy * 0.5 + 0.5;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`;

/** A pixel's place on the body, from its depth. */
const PLACE_AT = /* glsl */ `
uniform sampler2D depth;
uniform mat4 toBody;
vec3 placeAt(vec2 st) {
  vec4 at = toBody * vec4(st * 2.0 - 1.0, texture(depth, st).r * 2.0 - 1.0, 1.0);
  return at.xyz / at.w;
}`;

/**
 * The drawn clay over the ground, hollows darkened. Done once for each drawing of the mesh, not for each move of the
 * cursor.
 */
export const SHADE_FRAGMENT = /* glsl */ `
in vec2 vAt;
uniform sampler2D drawn;
uniform vec3 viewTop;
uniform vec3 viewBottom;
uniform vec2 pixel;
uniform vec3 toward;
uniform vec3 mirrors;
uniform vec3 about;
uniform float copies;
uniform int axis;
uniform vec3 lineColour;
uniform vec3 guideColour;
uniform float centreLines;
uniform float grid;
uniform float gridStep;
out vec4 colour;
${PLACE_AT}

/**
 * How far the pixel lies under those round it, in pixels: hollows are darkened and edges caught by a little light.
 * The ring of eight is wide enough to step over the facets of a dense mesh.
 */
float hollow(vec3 here) {
  float sum = 0.0;
  vec3 right = placeAt(vAt + vec2(pixel.x, 0.0)) - here;
  float size = max(1e-6, length(right - dot(right, toward) * toward));
  for (int i = 0; i < 8; i++) {
    float angle = (float(i) + 0.5) * 0.785398;
    float up = dot(placeAt(vAt + pixel * 2.6 * vec2(cos(angle), sin(angle))) - here, toward) / size;
    // A jump to the ground behind is an outline, not a hollow.
    if (abs(up) > 14.0) return 0.0;
    sum += up;
  }
  return clamp(sum / 8.0, -1.0, 1.0);
}

/** Where mirrors cut the clay, and where the sectors of radial copies meet: a line one and a half pixels wide. */
float symmetryLine(vec3 here) {
  vec3 d = here - about;
  vec3 wide = clamp(fwidth(d), vec3(1e-5), vec3(0.02));
  vec3 off = abs(d) / wide;
  float line = 0.0;
  for (int k = 0; k < 3; k++) line = max(line, mirrors[k] * (1.0 - smoothstep(0.7, 1.6, off[k])));
  if (copies > 1.5) {
    vec2 q = axis == 0 ? d.yz : axis == 1 ? d.zx : d.xy;
    float sector = 6.2831853 / copies;
    float angle = abs(mod(atan(q.y, q.x) + sector * 0.5, sector) - sector * 0.5);
    float beside = length(q) * sin(min(angle, 1.5707963));
    float width = max(max(wide.x, wide.y), wide.z);
    line = max(line, 0.7 * (1.0 - smoothstep(0.5, 1.4, beside / width)));
  }
  return line;
}

/** Centre lines, and a grid along the two axes that lie most across the view. */
float guideLine(vec3 here) {
  vec3 wide = clamp(fwidth(here), vec3(1e-5), vec3(0.02));
  vec3 off = abs(here) / wide;
  vec3 gridOff = abs(mod(here + 0.5 * gridStep, vec3(gridStep)) - 0.5 * gridStep) / wide;
  vec3 facing = abs(toward);
  int along = facing.z >= facing.x && facing.z >= facing.y ? 2 : facing.y >= facing.x ? 1 : 0;
  float line = 0.0;
  for (int k = 0; k < 3; k++) {
    if (k == along) continue;
    line = max(line, centreLines * 0.75 * (1.0 - smoothstep(0.6, 1.5, off[k])));
    line = max(line, grid * 0.34 * (1.0 - smoothstep(0.4, 1.2, gridOff[k])));
  }
  return line;
}

void main() {
  vec4 clay = texture(drawn, vAt);
  vec3 ground = mix(viewBottom, viewTop, vAt.y);
  vec3 here = placeAt(vAt);
  float guide = guideLine(here);
  float line = symmetryLine(here);
  if (texture(depth, vAt).r >= 1.0) {
    colour = vec4(mix(ground, clay.rgb, clay.a), 1.0);
    return;
  }
  vec3 shaded = mix(clay.rgb * (1.0 - 0.30 * hollow(here)), guideColour, guide);
  colour = vec4(mix(ground, mix(shaded, lineColour, 0.8 * line), clay.a), 1.0);
}`;

/**
 * The cursor laid on the surface: from each pixel's depth comes its place, from the place its (u, v) in the dab.
 * Moving the cursor therefore never draws the mesh again.
 */
export const OVERLAY_FRAGMENT = /* glsl */ `
in vec2 vAt;
uniform sampler2D shaded;
uniform float cursorOn;
uniform vec3 centre;
uniform vec3 tangent;
uniform vec3 bitangent;
uniform vec3 normal;
uniform float radius;
uniform float reach;
uniform float square;
uniform float fit;
uniform float hasForm;
uniform sampler2D form;
uniform float ground;
uniform float dig;
out vec4 colour;
${PLACE_AT}

void main() {
  vec3 sum = texture(shaded, vAt).rgb;
  float z = texture(depth, vAt).r;
  vec3 d = (placeAt(vAt) - centre) / radius;
  vec2 uv = vec2(dot(d, tangent), dot(d, bitangent));
  float w = abs(dot(d, normal));
  float rho = square > 0.5 ? max(abs(uv.x), abs(uv.y)) : length(uv);
  float edge = clamp(fwidth(rho), 0.0005, 0.08);
  if (cursorOn > 0.5 && z < 1.0 && w <= max(reach, 0.35)) {
    if (hasForm > 0.5 && rho < 1.0) {
      vec2 st = uv * fit * vec2(0.5, 0.5) + 0.5;
      if (all(greaterThanEqual(st, vec2(0.0))) && all(lessThanEqual(st, vec2(1.0)))) {
        float h = texture(form, st).r - ground;
        vec3 ink = h * (1.0 - 2.0 * dig) > 0.0 ? vec3(0.985, 0.995, 0.98) : vec3(0.10, 0.15, 0.16);
        sum = mix(sum, ink, clamp(abs(h), 0.0, 1.0) * 0.42);
      }
    }
    float line = 1.0 - smoothstep(0.7, 1.7, abs(rho - 1.0) / edge);
    float shadow = 1.0 - smoothstep(1.2, 3.4, abs(rho - 1.0) / edge);
    float middle = 1.0 - smoothstep(1.4, 2.6, length(uv) / edge);
    sum = mix(sum, vec3(0.09, 0.13, 0.14), 0.45 * shadow);
    sum = mix(sum, dig > 0.5 ? vec3(0.98, 0.80, 0.50) : vec3(1.0), max(line, middle));
  }
  colour = vec4(sum, 1.0);
}`;

/** Edges lie a hair before the faces that they bound. */
export const EDGE_VERTEX = /* glsl */ `
void main() {
  gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
  gl_Position.z -= 0.0004 * gl_Position.w;
}
`;

export const EDGE_FRAGMENT = /* glsl */ `
out vec4 drawn;
void main() {
  drawn = vec4(0.11, 0.16, 0.18, 0.26);
}
`;
