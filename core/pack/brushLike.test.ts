import { ACTIONS, BrushSchema, newBrush, setsParts, worksOf, type Brush } from '#core/settings';
import { brushLike } from './brushLike';

const ID = '00000000-0000-4000-8000-000000000001';
const OTHER = '00000000-0000-4000-8000-000000000002';
const as = { id: '00000000-0000-4000-8000-000000000003', name: 'Rock 7' };
const brush = (action: Brush['touch']['action']): Brush =>
  BrushSchema.parse({
    ...newBrush(ID, 'Model', 'Tidewrack Workshop'),
    form: { alphaId: OTHER, angle: 30 },
    touch: { action, strength: 37 },
    stroke: { type: 'trail', size: 0.41 },
    parts: action === 'insert' ? { order: 'random', entries: [{ partId: OTHER }, { partId: ID }], ends: 1 } : {},
    card: { name: 'Model', author: 'Tidewrack Workshop', tags: ['base', 'stone'] },
  });

test('everything but the alpha is that of the model; the model stays as it was', () => {
  const model = brush('lift');
  const before = JSON.stringify(model);
  const like = brushLike(model, { alphaId: ID }, as);
  expect(worksOf({ ...like, form: { ...like.form, alphaId: OTHER } })).toBe(worksOf(model));
  expect([like.form.alphaId, like.id, like.card.name]).toEqual([ID, as.id, 'Rock 7']);
  expect(JSON.stringify(model)).toBe(before);
});

test('a base brush lends its settings, not its maker', () => {
  expect(brushLike(brush('lift'), { alphaId: ID }, as).card).toMatchObject({ author: '', tags: ['stone'] });
  const own = brush('lift');
  own.card.tags = ['stone'];
  expect(brushLike(own, { alphaId: ID }, as).card.author).toBe('Tidewrack Workshop');
});

test('whatever the model does, a picture is pressed and a mesh set down', () => {
  for (const action of ACTIONS) {
    const model = brush(action);
    const pressed = brushLike(model, { alphaId: ID }, as);
    expect([setsParts(pressed), pressed.parts.entries]).toEqual([false, []]);
    const set = brushLike(model, { partId: ID }, as);
    expect([setsParts(set), set.parts.entries.map(({ partId }) => partId), set.parts.ends]).toEqual([true, [ID], null]);
    expect([pressed.stroke, set.stroke]).toEqual([model.stroke, model.stroke]);
  }
});
