import { ref } from 'vue';
import { useHistory } from './history';

interface Doc {
  id: string;
  size: number;
  name: string;
}

function made(togetherMs = 0, mostLength?: number) {
  const doc = ref<Doc | null>({ id: 'one', size: 1, name: 'a' });
  const history = useHistory(doc, {
    togetherMs,
    ...(mostLength ? { mostLength } : {}),
    put: (next) => (doc.value = next),
  });
  return { doc, history };
}

test('each change is a step; undo and redo go through all of them to the letter', () => {
  const { doc, history } = made();
  const states = [JSON.stringify(doc.value)];
  for (let size = 2; size < 8; size++) {
    history.edit(`size ${size}`, (d) => (d.size = size));
    states.push(JSON.stringify(doc.value));
  }
  for (let i = states.length - 2; i >= 0; i--) {
    history.undo();
    expect(JSON.stringify(doc.value)).toBe(states[i]);
  }
  history.undo();
  expect(JSON.stringify(doc.value)).toBe(states[0]);
  for (let i = 1; i < states.length; i++) {
    history.redo();
    expect(JSON.stringify(doc.value)).toBe(states[i]);
  }
});

test('changes of one label in quick succession are one step, those of another are not', () => {
  const { doc, history } = made(60_000);
  for (let size = 2; size < 9; size++) history.edit('size', (d) => (d.size = size));
  history.edit('name', (d) => (d.name = 'b'));
  history.edit('name', (d) => (d.name = 'bc'));
  expect(history.past.value).toHaveLength(2);
  history.undo();
  expect(doc.value).toEqual({ id: 'one', size: 8, name: 'a' });
  history.undo();
  expect(doc.value).toEqual({ id: 'one', size: 1, name: 'a' });
});

test('after an undo the same label begins a step of its own, and a change forgets what could be redone', () => {
  const { doc, history } = made(60_000);
  history.edit('size', (d) => (d.size = 2));
  history.undo();
  history.edit('size', (d) => (d.size = 3));
  expect(history.future.value).toEqual([]);
  history.undo();
  expect(doc.value!.size).toBe(1);
});

test('a change that changes nothing is no step; a document that is gone takes none', () => {
  const { doc, history } = made();
  history.edit('size', (d) => (d.size = 1));
  expect(history.past.value).toEqual([]);
  doc.value = null;
  history.edit('size', (d) => (d.size = 5));
  history.undo();
  expect(doc.value).toBeNull();
});

test('the document handed to a change is a copy: what was taken out before stays as it was', () => {
  const { doc, history } = made();
  const before = doc.value!;
  history.edit('size', (d) => (d.size = 4));
  expect(before.size).toBe(1);
  expect(doc.value!.size).toBe(4);
});

test('left and opened again as it was, a document has its undo and redo again; changed meanwhile, it begins anew', () => {
  const { doc, history } = made();
  for (let size = 2; size < 6; size++) history.edit(`size ${size}`, (d) => (d.size = size));
  history.undo();
  const here = { ...doc.value! };
  history.close();
  expect([history.past.value.length, history.future.value.length]).toEqual([0, 0]);
  doc.value = { id: 'two', size: 9, name: 'b' };
  history.resume();
  history.edit('size', (d) => (d.size = 10));
  history.close();
  doc.value = { ...here };
  history.resume();
  expect([history.past.value.length, history.future.value.length]).toEqual([3, 1]);
  history.redo();
  expect(doc.value.size).toBe(5);
  history.close();
  doc.value = { ...here, name: 'from another window' };
  history.resume();
  expect(history.past.value).toEqual([]);
});

test('the states stay within their budget, the oldest go first, and the last step can always be undone', () => {
  const { doc, history } = made(0, 1000);
  for (let size = 2; size < 200; size++) history.edit(`size ${size}`, (d) => (d.size = size));
  expect(history.past.value.join('').length).toBeLessThanOrEqual(1000);
  expect(history.past.value.length).toBeGreaterThan(10);
  history.edit('name', (d) => (d.name = 'x'.repeat(5000)));
  history.edit('size', (d) => (d.size = 1));
  expect(history.past.value).toHaveLength(1);
  history.undo();
  expect([doc.value!.size, doc.value!.name.length]).toEqual([199, 5000]);
});

test('while the hand holds on, changes of one label are one step, however long it takes', () => {
  const { doc, history } = made(0);
  history.edit('lay', (d) => (d.size = 2));
  for (let size = 3; size < 9; size++) history.edit('lay', (d) => (d.size = size), { held: true });
  expect(history.past.value).toHaveLength(1);
  history.edit('turn 2', (d) => (d.size = 20), { held: true });
  history.undo();
  expect(doc.value!.size).toBe(8);
  // What was undone isn't joined to what comes next.
  history.edit('turn 2', (d) => (d.size = 30), { held: true });
  history.undo();
  expect(doc.value!.size).toBe(8);
  history.undo();
  expect(doc.value!.size).toBe(1);
});
