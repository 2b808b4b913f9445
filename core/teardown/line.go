package teardown

import (
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

var counted = regexp.MustCompile(`(?i)^(\d{1,3})\s?x\s+(.+)$`)

var minutes = regexp.MustCompile(`(?i)^(\d{1,3}) ?min(?:utes?)?$`)

// listed are names with commas between.
func listed(text string) []string {
	names := []string{}
	for name := range strings.SplitSeq(text, ",") {
		if name = strings.TrimSpace(name); name != "" {
			names = append(names, name)
		}
	}
	return names
}

// ParseStep reads a line. A *malformed.Error names the part that cannot be read; what was read stands in the step.
func ParseStep(line string) (Step, error) {
	s := Step{}.Whole()
	for i, part := range strings.Split(line, "|") {
		part = strings.Join(strings.Fields(part), " ")
		word, rest, _ := strings.Cut(part, " ")
		keyword := strings.ToLower(strings.TrimSuffix(word, ":"))
		count := counted.FindStringSubmatch(part)
		switch {
		case i == 0:
			s.Off = part
		case part == "":
		case count != nil:
			n, _ := strconv.Atoi(count[1]) // at most three figures
			f, err := parseFastener(n, strings.Fields(count[2]))
			if err != nil {
				return s, malformed.In("line", "%q: %s", part, err)
			}
			s.Fasteners = append(s.Fasteners, f)
		case keyword == "tab" || keyword == "mind":
			s.Tabs = append(s.Tabs, rest)
		case keyword == "unplug":
			s.Connectors = append(s.Connectors, listed(rest)...)
		case keyword == "needs" && rest != "":
			s.Needs = append(s.Needs, listed(rest)...)
		case keyword == "frees" && rest != "":
			s.Frees = append(s.Frees, listed(rest)...)
		case keyword == "look" && rest != "":
			s.Look = append(s.Look, rest)
		case minutes.MatchString(part):
			s.Minutes, _ = strconv.Atoi(minutes.FindStringSubmatch(part)[1]) // at most three figures
		case keyword == "differs":
			subject, value, ok := strings.Cut(rest, ":")
			if !ok {
				return s,
					malformed.In("line", "%q: write what differs and how it is here, as differs battery: soldered",
						part)
			}
			s.Differs = append(s.Differs, Variant{strings.TrimSpace(subject), strings.TrimSpace(value)})
		case keyword == "note":
			s.Note = strings.TrimSpace(s.Note + " " + rest)
		case strings.EqualFold(part, "in this order"):
			s.Special = true
		default:
			return s, malformed.In("line",
				"%q is not understood; after what comes off stand fasteners (4x M3x8 PH1 @A1), tab:, unplug, needs:, frees:, look:, 5 min, differs, in this order, note:", part)
		}
	}
	if s.Off == "" {
		return s, malformed.In("line", "say first what comes off, as Lid | 4x M3x8 PH1 @A1")
	}
	return s, nil
}

// String writes the step as a line.
func (s Step) String() string {
	parts := []string{s.Off}
	for _, f := range s.Fasteners {
		parts = append(parts, f.String())
	}
	for _, tab := range s.Tabs {
		parts = append(parts, "tab: "+tab)
	}
	if len(s.Connectors) > 0 {
		parts = append(parts, "unplug "+strings.Join(s.Connectors, ", "))
	}
	if len(s.Needs) > 0 {
		parts = append(parts, "needs: "+strings.Join(s.Needs, ", "))
	}
	if len(s.Frees) > 0 {
		parts = append(parts, "frees: "+strings.Join(s.Frees, ", "))
	}
	for _, look := range s.Look {
		parts = append(parts, "look: "+look)
	}
	if s.Minutes > 0 {
		parts = append(parts, strconv.Itoa(s.Minutes)+" min")
	}
	for _, v := range s.Differs {
		parts = append(parts, "differs "+v.Subject+": "+v.Value)
	}
	if s.Special {
		parts = append(parts, "in this order")
	}
	if s.Note != "" {
		parts = append(parts, "note: "+s.Note)
	}
	return strings.Join(parts, " | ")
}
