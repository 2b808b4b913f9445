package edtf

import (
	"errors"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/malformed"
)

var (
	partForm = regexp.MustCompile(`^(\d{4}|\d{3}X|\d{2}XX)(?:-(\d{2})(?:-(\d{2}))?)?([?~%]?)$`)
	weekForm = regexp.MustCompile(`^(\d{4})-?W(\d{1,2})(?:-?(\d))?$`)
	dayFirst = regexp.MustCompile(`^(\d{1,2})[./](\d{1,2})[./](\d{4})$`)
	yearRun  = regexp.MustCompile(`^(\d{4})\s*[-–]\s*(\d{4})$`)
	decade   = regexp.MustCompile(`^(\d{3})0s$`)
)

// Parse reads a date. It returns a *malformed.Error for anything that is none.
func Parse(text string) (Date, error) {
	trimmed := strings.TrimSpace(text)
	wrong := func(why string) (Date, error) { return Date{}, &malformed.Error{Text: trimmed, Err: errors.New(why)} }
	if trimmed == "" {
		return wrong("write a date, as 1984, 1984-06 or 1983/1985")
	}
	if m := dayFirst.FindStringSubmatch(trimmed); m != nil {
		return wrong("write year, month, day, as " + m[3] +
			"-06-02: it cannot be told here which of the others is the month")
	}
	from, to, interval := strings.Cut(trimmed, "/")
	if !interval {
		if why := misspelt(trimmed); why != "" {
			return wrong(why)
		}
		part, why := readPart(trimmed)
		if why != "" {
			return wrong(why)
		}
		return Date{From: part, To: part}, nil
	}
	d := Date{Interval: true}
	var why string
	if d.From, why = readEnd(from); why != "" {
		return wrong(why)
	}
	if d.To, why = readEnd(to); why != "" {
		return wrong(why)
	}
	switch {
	case d.From.isNowhere() && d.To.isNowhere():
		return wrong("one end at least has to be a date")
	case !d.From.isNowhere() && !d.To.isNowhere() && d.To.last().Before(d.From.first()):
		return wrong("it ends before it begins")
	}
	return d, nil
}

// readEnd reads one end of an interval.
func readEnd(text string) (Part, string) {
	switch text = strings.TrimSpace(text); text {
	case "..":
		return Part{Open: true}, ""
	case "":
		return Part{Unknown: true}, ""
	}
	if why := misspelt(text); why != "" {
		return Part{}, why
	}
	return readPart(text)
}

// misspelt knows other ways in which people write dates, and says how to write what they mean.
func misspelt(text string) string {
	if m := weekForm.FindStringSubmatch(text); m != nil {
		year, _ := strconv.Atoi(m[1])
		week, _ := strconv.Atoi(m[2])
		if year == 0 || week < 1 || week > calendar.WeeksIn(year) {
			return m[1] + " has no week " + m[2] + "; write its days, as 1985-02-11/1985-02-17"
		}
		first, last := calendar.Week(year, week)
		return "weeks are written by their days: " + first.String() + "/" + last.String()
	}
	if m := yearRun.FindStringSubmatch(text); m != nil {
		return "write from and to with a stroke between them: " + m[1] + "/" + m[2]
	}
	if m := decade.FindStringSubmatch(text); m != nil {
		return "write a decade with its last figure open: " + m[1] + "X"
	}
	if rest, found := strings.CutPrefix(strings.ToLower(text), "c"); found {
		if year := strings.TrimLeft(rest, "irca. "); len(year) == 4 {
			return "write about with a wave behind the date: " + year + "~"
		}
	}
	return ""
}

func readPart(text string) (Part, string) {
	m := partForm.FindStringSubmatch(text)
	if m == nil {
		return Part{}, "no date; write 1984, 198X, 1984-06, 1984-06-02, 1984~ (about), 1984? (perhaps) or 1983/1985"
	}
	p := Part{OpenDigits: strings.Count(m[1], "X")}
	p.Year, _ = strconv.Atoi(strings.ReplaceAll(m[1], "X", "0"))
	p.Month, _ = strconv.Atoi(m[2])
	p.Day, _ = strconv.Atoi(m[3])
	p.Uncertain = m[4] == "?" || m[4] == "%"
	p.Approximate = m[4] == "~" || m[4] == "%"
	isSeason := p.Month >= 21 && p.Month <= 24
	switch {
	case p.OpenDigits > 0 && m[2] != "":
		return p, "a year with open figures takes no month"
	case p.Year == 0 && p.OpenDigits == 0:
		return p, "there is no year 0000"
	case m[2] != "" && !isSeason && (p.Month < 1 || p.Month > 12):
		return p, "there is no month " + m[2] + "; months are 01 to 12, seasons 21 (spring) to 24 (winter)"
	case isSeason && m[3] != "":
		return p, "a season takes no day"
	}
	if m[3] != "" {
		if _, last := calendar.MonthDays(p.Year, p.Month); p.Day < 1 || p.Day > last.Day {
			return p, m[1] + "-" + m[2] + " has no day " + m[3] + "; its last is " + strconv.Itoa(last.Day)
		}
	}
	return p, ""
}

// isNowhere reports whether an end is no date.
func (p Part) isNowhere() bool { return p.Open || p.Unknown }
