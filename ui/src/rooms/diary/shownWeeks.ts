/** How many weeks the diary shows at once. */
export const shownWeeks = 4
