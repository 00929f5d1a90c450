import { ref } from 'vue';
import { useHistory } from './history';

interface Doc {
  size: number;
  name: string;
}

function made(togetherMs = 0) {
  const doc = ref<Doc | null>({ size: 1, name: 'a' });
  const history = useHistory(doc, { togetherMs, put: (next) => (doc.value = next) });
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
  expect(doc.value).toEqual({ size: 8, name: 'a' });
  history.undo();
  expect(doc.value).toEqual({ size: 1, name: 'a' });
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
