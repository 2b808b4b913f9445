package gate

import "regexp"

var fan = regexp.MustCompile(`(?i)\b(fan|blower|ventilator)s?\b`)

// IsFan reports whether the words of a part name something that moves air.
func IsFan(words string) bool { return fan.MatchString(words) }
