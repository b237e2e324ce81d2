/** What is drawn by hand or recorded from a pedal is simplified to within this share of the control's range. */
export const SWEEP_ERROR = 0.01;
