package console

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/facts"
)

const amount = `(\d+(?:[.,]\d+)?)[ \t]*(K|KB|Kbytes?|KiB|M|MB|Mbytes?|MiB|megabytes?|kilobytes?|bytes?)\b`

var (
	sizeIn = regexp.MustCompile(`(?i)` + amount)
	// Which memory it is: all of it unless the words say otherwise.
	ofMemory = regexp.MustCompile(`(?i)\b(memory|mem|ram|core)\b`)
	counted  = regexp.MustCompile(`(?i)^[\s*>]*0*(\d+)[ \t]*(K|KB|M|MB)\b[\s.,:-]*(ok|passed|good|tested|found)\b`)
	aPart    = regexp.MustCompile(`(?i)\b(free|available|avail|used|in use|base|conventional|low|high|upper|extended|expanded|` +
		`shadow|reserved|required|requires|needs?|minimum|at least|buffers?|bank|board|card|slot|module|simm|unit|segment|page|` +
		`heap|stack|kernel|program|user)\b`)
	ofPicture = regexp.MustCompile(`(?i)\b(video|display|picture|screen|vram|frame|graphics) ?(memory|mem|ram|buffer)?\b`)
	ofCache   = regexp.MustCompile(`(?i)\bcache\b`)
	ofROM     = regexp.MustCompile(`(?i)\b(rom|eprom|prom)\b`)
	versionIn = regexp.MustCompile(`(?i)\b(version|ver|vers|v|rev|revision|release|rel|r|level)[.:]?[ \t]*` +
		`((?:\d+(?:[.\-]\d+)*[a-z]?)|[A-Z])(?:$|[\s,;:)\]/])`)
	ofFirmware = regexp.MustCompile(`(?i)\b(bios|monitor|firmware|boot ?(prom|rom|strap|loader)?|bootstrap|prom|rom|eprom|` +
		`microcode|self[- ]?test|diagnostics?|diag)\b`)
	ofSystem = regexp.MustCompile(`(?i)(\boperating system\b|\b\w*(?:dos|nix)\b|\b(?:\w+ )?os\b|\bos[-/]\w+\b)`)
	ofOther  = regexp.MustCompile(`(?i)\b(video|display|graphics|scsi|disk|drive|network|ethernet|card|controller|adapter|` +
		`keyboard|modem|sound|printer)\b`)
	processor = regexp.MustCompile(`(?i)\b(?:cpu|processor)\b(?:[ \t]*(?:type|is))?[ \t]*[:=\-][ \t]*(\S.*)$`)
	clockOf   = regexp.MustCompile(`(?i)\b(\d+(?:\.\d+)?)[ \t]*MHz\b`)
	maths     = regexp.MustCompile(`(?i)\b(coprocessor|co-processor|fpu|math chip|numeric processor|floating[- ]point ` +
		`(?:unit|processor|chip))\b[ \t]*[:=\-]?[ \t]*(\S.*)?$`)
	hardware = regexp.MustCompile(`(?i)\b(?:ethernet|hardware|mac|station|node|physical|network)\b.*?\b` +
		`((?:[0-9a-f]{1,2}[:-]){5}[0-9a-f]{1,2})\b`)
	internet  = regexp.MustCompile(`(?i)\b(?:ip|inet|internet|network)[ \t]+addr(?:ess)?\b[^0-9]*(\d+\.\d+\.\d+\.\d+)\b`)
	signIn    = regexp.MustCompile(`(?i)^\s*([a-z0-9][a-z0-9.\-]*)[ \t]+login:`)
	hostName  = regexp.MustCompile(`(?i)\bhost ?name\b[ \t]*(?:is|[:=])?[ \t]*([a-z0-9][a-z0-9.\-]*)\s*$`)
	serialNo  = regexp.MustCompile(`(?i)\b(?:serial (?:number|no\.?|#)|s/n)[ \t]*[:=#]?[ \t]*([a-z0-9][a-z0-9\-/]*\d[a-z0-9\-/]*)`)
	diskIn    = regexp.MustCompile(`(?i)\b((?:hard |fixed |winchester )?(?:disk|drive)(?:[ \t]*[a-z]?\d|[ \t]+[a-z]\b)?)\b`)
	notWhole  = regexp.MustCompile(`(?i)\b(free|used|available|left|partition|floppy|diskette|buffer|cache|swap)\b`)
	inWords   = regexp.MustCompile(`(?i)\b\d+[ \t]*k?[ \t]*(words?|kw)\b`)
	bytesUnit = regexp.MustCompile(`(?i)^bytes?$`)
)

// claimsIn are the things that a line says of the machine. A line that complains says nothing else.
func claimsIn(line TextLine) []Claim {
	claims := []Claim{}
	if troubleIn(line) != nil && !optional.MatchString(line.Text) {
		return claims
	}
	add := func(attribute, subject, value string, source facts.Source, why, doubt string) {
		value = strings.Trim(strings.Join(strings.Fields(value), " "), " .,;:")
		if value == "" {
			return
		}
		a := facts.AttributeOf(attribute)
		if _, err := a.Normal(value); err != nil && a.Form == facts.Address {
			doubt = err.Error()
		} else if err != nil {
			return // no value of its kind: it stays a line of text
		}
		claims = append(claims, Claim{line.Number, attribute, subject, value, source, why, doubt})
	}
	text := line.Text
	lower := strings.ToLower(text)
	found := func(re *regexp.Regexp, hints ...string) []string {
		if !hasHint(lower, hints) {
			return nil
		}
		return re.FindStringSubmatch(text)
	}
	if c := memoryIn(line); c != nil {
		add(c.Attribute, c.Subject, c.Value, facts.Firmware, c.Why, c.Doubt)
	}
	if c := versionOf(line); c != nil {
		add(c.Attribute, c.Subject, c.Value, c.Source, c.Why, c.Doubt)
	}
	if m := found(maths, "coproc", "co-proc", "fpu", "math", "numeric", "floating"); m != nil {
		switch {
		case isAbsent.MatchString(m[2]):
			add("coprocessor", "", "none", facts.Firmware, "it says that there is none", "")
		case m[2] != "":
			add("coprocessor", "", m[2], facts.Firmware, "it names what it found", "")
		}
	} else if m := found(processor, "cpu", "processor"); m != nil {
		name := m[1]
		if at := clockOf.FindStringSubmatchIndex(name); at != nil {
			add("processor-clock", "", name[at[2]:at[3]]+" MHz", facts.Firmware,
				"it tells the clock of the processor", "")
			name = strings.TrimSuffix(strings.TrimRight(name[:at[0]], " ,(@"), " at")
		}
		add("processor", "", name, facts.Firmware, "it names the processor", "")
	}
	if m := found(hardware, ":", "-"); m != nil {
		add("hardware-address", "", m[1], facts.Firmware, "it tells the address of the network hardware", "")
	}
	if m := found(internet, "addr"); m != nil {
		add("network-address", "", m[1], facts.Firmware, "it tells its settings", "")
	}
	if m := found(signIn, "login:"); m != nil {
		add("host-name", "", m[1], facts.Seen, "it asks to sign in by that name", "")
	} else if m := found(hostName, "host"); m != nil {
		add("host-name", "", m[1], facts.Seen, "it tells its name", "")
	}
	if m := found(serialNo, "serial", "s/n"); m != nil {
		doubt := ""
		if ofOther.MatchString(text) {
			doubt = "it may be that of a part"
		}
		add("serial", "", m[1], facts.Firmware, "it tells a serial number", doubt)
	}
	if m := found(diskIn, "disk", "drive"); m != nil && !notWhole.MatchString(text) {
		if size := sizeIn.FindStringSubmatch(text); size != nil && strings.HasPrefix(strings.ToUpper(size[2]), "M") {
			add("disk-size", m[1], size[1]+" "+unitOf(size[2]), facts.Firmware, "it tells the size of a disk", "")
		}
	}
	return claims
}

// memoryIn is what a line says of memory; nil for nothing. A part of it is no claim about all.
func memoryIn(line TextLine) *Claim {
	text := line.Text
	if m := counted.FindStringSubmatch(text); m != nil {
		return &Claim{Attribute: "memory", Value: m[1] + " " + unitOf(m[2]), Why: "it counted so far"}
	}
	size := sizeIn.FindStringSubmatch(text)
	if size == nil || !ofMemory.MatchString(text) && !ofPicture.MatchString(text) && !ofCache.MatchString(text) {
		return nil
	}
	value := strings.TrimLeft(size[1], "0") + " " + unitOf(size[2])
	switch {
	case strings.TrimLeft(size[1], "0.,") == "", diskIn.MatchString(text), ofROM.MatchString(text):
		return nil
	case ofCache.MatchString(text):
		return &Claim{Attribute: "cache", Value: value, Why: "it tells the size of its cache"}
	case ofPicture.MatchString(text):
		return &Claim{Attribute: "picture-memory", Value: value, Why: "it tells the size of its picture memory"}
	case aPart.MatchString(text), len(sizeIn.FindAllString(text, -1)) > 1:
		return nil
	case inWords.MatchString(text):
		return nil // how many bits a word has is not told
	case bytesUnit.MatchString(size[2]):
		value = strings.ReplaceAll(value, ",", "")
	}
	return &Claim{Attribute: "memory", Value: value, Why: "it tells the size of its memory"}
}

// unitOf writes a unit as facts do.
func unitOf(said string) string {
	lower := strings.ToLower(said)
	switch {
	case bytesUnit.MatchString(said), lower == "kib", lower == "mib":
		return said
	}
	return strings.ToUpper(said[:1]) + "B"
}

// versionOf is of which version a line says that the firmware or the system is; nil for none.
func versionOf(line TextLine) *Claim {
	at := versionIn.FindStringSubmatchIndex(line.Text)
	if at == nil {
		return nil
	}
	version, before := line.Text[at[4]:at[5]], strings.TrimSpace(line.Text[:at[0]])
	isLetter := strings.Trim(version, "ABCDEFGHIJKLMNOPQRSTUVWXYZ") == ""
	word := strings.ToLower(line.Text[at[2]:at[3]])
	if isLetter && (word == "v" || word == "r" || word == "level" || word == "version") {
		return nil
	}
	switch {
	case ofSystem.MatchString(line.Text):
		return &Claim{Attribute: "operating-system", Value: strings.Trim(before+" "+version, " ,;:-("),
			Source: facts.Seen, Why: "it names itself and its version"}
	case ofFirmware.MatchString(line.Text):
		c := Claim{Attribute: "firmware", Value: version, Source: facts.Firmware, Why: "it tells the version of " +
			strings.ToLower(ofFirmware.FindString(line.Text))}
		if of := ofOther.FindString(line.Text); of != "" {
			c.Subject = strings.ToLower(of)
			c.Doubt = "it names a part, and may be the firmware of that"
		}
		return &c
	}
	return &Claim{Attribute: "firmware", Value: version, Source: facts.Firmware, Why: "it tells a version",
		Doubt: "of what it is the version is not told: " + strings.Trim(before, " ,;:-(")}
}

// settleMemory keeps one claim about the memory of the machine: the last of a count. Where the text tells several that are
// no count, or something failed meanwhile, each is told with that.
func (r *TextReading) settleMemory() {
	at := []int{}
	for i, c := range r.Claims {
		if c.Attribute == "memory" {
			at = append(at, i)
		}
	}
	if len(at) == 0 {
		return
	}
	last, drop := at[len(at)-1], []int{}
	for n, i := range at[:len(at)-1] {
		next := r.Claims[at[n+1]]
		isSame := facts.AttributeOf("memory").Same(r.Claims[i].Value, next.Value)
		if isSame || r.Claims[i].Why == "it counted so far" {
			drop = append(drop, i)
			continue
		}
		r.Claims[i].Doubt = "the text tells more than one size"
		r.Claims[last].Doubt = "the text tells more than one size"
	}
	if len(r.Failures) > 0 {
		r.Claims[last].Doubt = "memory failed on line " + strconv.Itoa(r.Failures[0].Line)
	}
	kept := []Claim{}
	for i, c := range r.Claims {
		if !slices.Contains(drop, i) {
			kept = append(kept, c)
		}
	}
	r.Claims = kept
}
