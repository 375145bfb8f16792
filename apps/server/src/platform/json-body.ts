import { batchLimits, jsonSize, wireLimits } from '@yunta/core';
import type { NextFunction, Request, Response } from 'express';
import { sendProblem } from './problem.ts';

interface Limits {
  readonly bytes: number;
  readonly entries: number;
  readonly depth: number;
}

/** A whole rig comes as a text inside of the body; what is in that text is counted where it is read. */
const fileLimits: Limits = { bytes: wireLimits.bytes * 2, entries: 100, depth: 3 };
/** No envelope has more fields. */
const mostFields = 20;

const limitsOf = ({ method, path }: Request): Limits =>
  method === 'POST' && path === '/api/shows' ? fileLimits : batchLimits;

/**
 * Reads a JSON body: nothing is inflated, and bytes, depth and entries are counted before anything is parsed, so that
 * no body can keep the server from answering others for long.
 */
export function jsonBody(request: Request, response: Response, next: NextFunction): void {
  if (['GET', 'HEAD'].includes(request.method)) return next();
  if ((request.headers['content-encoding'] ?? 'identity') !== 'identity')
    return cutOff(request, response, [415, 'compressed', 'Send the body as it is, not compressed.']);
  const limits = limitsOf(request);
  const tooLarge: Refusal = [413, 'too-large', `More than ${limits.bytes} bytes. Split it up.`];
  if (Number(request.headers['content-length'] ?? 0) > limits.bytes) return cutOff(request, response, tooLarge);
  const chunks: Buffer[] = [];
  let bytes = 0;
  request.on('data', (chunk: Buffer) => {
    bytes += chunk.length;
    if (bytes <= limits.bytes) chunks.push(chunk);
    else if (!response.headersSent) cutOff(request, response, tooLarge);
  });
  request.on('end', () => {
    if (response.headersSent) return;
    const refusal = readInto(request, Buffer.concat(chunks), limits);
    if (refusal) sendProblem(response, ...refusal);
    else next();
  });
}

/** Refuses what is still being sent: the answer goes out, and the connection with the rest of the body ends. */
function cutOff(request: Request, response: Response, refusal: Refusal): void {
  response.setHeader('Connection', 'close');
  response.once('finish', () => setTimeout(() => request.destroy(), 500).unref());
  sendProblem(response, ...refusal);
}

type Refusal = readonly [status: number, code: string, title: string];

function readInto(request: Request, bytes: Buffer, limits: Limits): Refusal | null {
  request.body = {};
  if (bytes.length === 0) return null;
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return [400, 'not-json', 'This is not JSON in UTF-8.'];
  }
  const { depth, entries } = jsonSize(text);
  if (depth > limits.depth) return [413, 'too-deep', `Nested deeper than ${limits.depth} levels.`];
  if (entries > limits.entries)
    return [413, 'too-large', `${entries} entries, where ${limits.entries} is the limit. Split it up.`];
  try {
    request.body = JSON.parse(text) as unknown;
  } catch {
    return [400, 'not-json', 'This is not JSON.'];
  }
  const { body } = request as { body: unknown };
  if (body === null || typeof body !== 'object' || Array.isArray(body)) return [400, 'not-json', 'Send a JSON object.'];
  if (Object.keys(body).length > mostFields)
    return [422, 'unknown-field', `More than ${mostFields} fields: none of our requests has so many.`];
  return null;
}
