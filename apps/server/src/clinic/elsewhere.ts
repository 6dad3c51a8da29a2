/** The address of those who only wrote in records that came from elsewhere: they never were of this clinic, and cannot sign in. */
export const ELSEWHERE = '@elsewhere.invalid';
