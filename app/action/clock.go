package action

import "time"

// Today is the day that moves are entered with unless they say another.
func Today() string { return time.Now().Format(time.DateOnly) }
