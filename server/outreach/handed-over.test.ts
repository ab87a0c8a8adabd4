import { expect, test } from '@jest/globals';
import { handedOverOf } from './handed-over.ts';

const error = (more: object) => Object.assign(new Error('said'), more);

test.each([
  [
    'no such mailbox',
    { responseCode: 550, command: 'RCPT TO', response: '550 5.1.1 No such mailbox' },
    'refused',
  ],
  ['a plain 550', { responseCode: 550, command: 'RCPT TO', response: '550 unknown user' }, 'refused'],
  // These say nothing of the address: the sender, the size or the policy is at fault.
  ['sender refused', { responseCode: 550, command: 'MAIL FROM', response: '550 5.7.1 not you' }, 'later'],
  [
    'policy at the address',
    { responseCode: 550, command: 'RCPT TO', response: '550 5.7.1 blocked' },
    'later',
  ],
  ['mailbox full', { responseCode: 552, command: 'RCPT TO', response: '552 5.2.2 full' }, 'later'],
  ['put off', { responseCode: 451, command: 'RCPT TO', response: '451 4.7.1 later' }, 'later'],
  ['refused after the text', { responseCode: 554, command: 'DATA', response: '554 no' }, 'later'],
  ['nobody listens', { code: 'ECONNECTION' }, 'later'],
  ['wrong password', { code: 'EAUTH', responseCode: 535, command: 'AUTH PLAIN' }, 'later'],
  // The text had begun to go and no answer came.
  ['hung up within the text', { code: 'ECONNECTION', command: 'DATA' }, 'perhaps'],
  ['no answer to the text', { code: 'ETIMEDOUT', command: 'DATA' }, 'perhaps'],
] as const)('%s', (_, more, how) => {
  expect(handedOverOf(error(more)).how).toBe(how);
});

test('what the server said stands in words, and no more than a few lines of it', () => {
  const long = handedOverOf(error({ responseCode: 451, response: `451 ${'x'.repeat(5000)}` }));
  expect((long as { trouble: string }).trouble).toHaveLength(300);
});
