package console

import (
	"regexp"
	"slices"
	"strings"
)

var (
	complains = regexp.MustCompile(`(?i)\b(errors?|err|fail(s|ed|ure|ing)?|faults?|bad|mismatch|time-?out|timed out|` +
		`not (ready|found|responding|set|present|installed|bootable)|invalid|corrupt(ed)?|illegal|halt(ed)?|panic|abort(ed)?|` +
		`no (boot|system|keyboard|disk|drive|device|memory|ram)|(low|dead|discharged) battery|battery (low|dead|failed)|` +
		`unexpected|missing|stuck|overrun|crash(ed)?|checksum (?:is )?(?:wrong|bad))\b`)
	// What names trouble and says that there is none, or is about how it is dealt with.
	allIsWell = regexp.MustCompile(`(?i)\b((no|0+|zero|without(?: any)?) (parity |memory |disk |hard |soft |read |write |` +
		`checksum |crc |new )*(errors?|faults?|failures?)|(errors?|faults?|failures?|bad (blocks?|sectors?))\s*[:=]\s*` +
		`(0+|none)\b|error[- ](correct(ion|ing)|check(ing)?|log(ging)?|code(s)? (are|is) listed)|` +
		`(bad|invalid) (block|sector) (table|list)|no bad (blocks?|sectors?)|none (bad|missing)|fault[- ]tolerant|` +
		`0+ (bad|missing)|no missing)`)
)

// hints are pieces of which a line has one that complains: they are looked for first, as that is quick.
var hints = []string{"err", "fail", "fault", "bad", "mismatch", "time", "not ", "invalid", "corrupt", "illegal", "halt",
	"panic", "abort", "no ", "battery", "unexpected", "missing", "stuck", "overrun", "crash", "checksum"}

func hasHint(text string, hints []string) bool {
	return slices.ContainsFunc(hints, func(hint string) bool { return strings.Contains(text, hint) })
}

// troubleIn is what a line complains of; nil where it does not.
func troubleIn(line TextLine) *Trouble {
	if !hasHint(strings.ToLower(line.Text), hints) {
		return nil
	}
	rest := allIsWell.ReplaceAllString(line.Text, "")
	if !complains.MatchString(rest) {
		return nil
	}
	if absent(rest) {
		return nil
	}
	return &Trouble{line.Number, strings.TrimSpace(line.Text)}
}

// optional are parts that a sound machine need not have: that they are not there is a fact, no trouble.
var optional = regexp.MustCompile(`(?i)\b(coprocessor|co-processor|fpu|math chip|numeric processor|floating[- ]point|` +
	`mouse|cache|expansion|option|printer|sound|joystick|tape|cassette)\b`)

var isAbsent = regexp.MustCompile(`(?i)\b(not (found|present|installed|fitted)|missing|none|absent|no)\b`)

// absent reports whether a line only says that a part is not there which need not be.
func absent(text string) bool {
	return optional.MatchString(text) && !complains.MatchString(isAbsent.ReplaceAllString(text, ""))
}
