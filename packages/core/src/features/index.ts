export { BoardWanted, MAX_BOARDS, MAX_OPERATIONS, MAX_PAGES } from './board/index.js';
export type { Entries } from './board/index.js';
export { Caption, captionCues, CaptionText, MAX_CAPTION, splitCaption } from './captions/index.js';
export { CLOSE } from './connection/index.js';
export type { CloseCode } from './connection/index.js';
export { Arrival } from './door/index.js';
export { Waiting } from './doorstep/index.js';
export { View, WindowSize } from './in-step/index.js';
export { LessonBoard, MAX_LESSON_BOARDS } from './lesson-boards/index.js';
export { MAX_MESSAGE_BYTES } from './limits.js';
export {
  IceCandidate,
  IceServer,
  isSessionDescription,
  MAX_DESCRIPTION,
  MediaWindow,
  Muted,
  Microphone,
  sendsNothing,
  SessionDescription,
} from './media/index.js';
export type { ReadLimits } from './limits.js';
export { Arrow, Lamp, LitLamp, Overlay, Place } from './pointing/index.js';
export { LessonWindow, Machine, Person } from './presence/index.js';
export { ChatLine, ChatText, ChatTo, MAX_CHAT, Signal } from './talk/index.js';
export * from './register.js';
