/** What the screens of a bot are loaded by: the frame around the stages, what a stage shows of the bot, and of its model. */
export const FRAME = 'bot:frame';
export const VIEW = 'bot:view';
export const MODEL_VIEW = 'bot:model';
/** What a stage shows of the runs of the walkthroughs. */
export const WALKED = 'bot:walkthroughs';
