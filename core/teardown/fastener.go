package teardown

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strings"
)

// Keeping says how fasteners are kept until they go back; all are equal.
type Keeping string

// Ways of keeping fasteners.
const (
	InCell Keeping = "cell" // in a cell of the tray
	InHole Keeping = "hole" // left in their holes
	Laid   Keeping = "laid" // laid out as they came, in a pattern that is drawn
)

// Point is a place in a drawn pattern, from its upper left corner, in parts of its width and height.
type Point struct {
	X float64 `json:"x" minimum:"0" maximum:"1"`
	Y float64 `json:"y" minimum:"0" maximum:"1"`
}

// Fastener are equal screws, clips or nuts of a step.
type Fastener struct {
	Count    int     `json:"count" minimum:"1" maximum:"500"`
	Kind     string  `json:"kind" maxLength:"100" doc:"As M3 pan, rivet, clip"`
	LengthMm float64 `json:"lengthMm" minimum:"0" maximum:"1000" required:"false" doc:"Below the head, millimetres; 0 when nobody measured"`
	Washer   string  `json:"washer" maxLength:"60" required:"false" doc:"As plain, spring, toothed"`
	Tool     string  `json:"tool" maxLength:"40" required:"false" doc:"As PH1, T10, slot 4"`
	Keeping  Keeping `json:"keeping" enum:"cell,hole,laid"`
	Cell     string  `json:"cell" maxLength:"4" required:"false" doc:"Cell of the tray, as A1"`
	Pattern  []Point `json:"pattern" maxItems:"200" required:"false" doc:"How they are laid out, a point for each"`
	Shape    string  `json:"shape,omitempty" enum:"row,two rows,ring" doc:"In place of a pattern: the shape to lay them out in"`
}

func (f Fastener) name() string {
	name := f.Kind
	if f.LengthMm > 0 {
		name = strings.TrimSpace(fmt.Sprintf("%s x %g mm", name, f.LengthMm))
	}
	if name == "" {
		name = "fastener"
	}
	return name
}

func (f Fastener) check(tray Tray) error {
	switch {
	case f.Count < 1:
		return errors.New("say how many there are")
	case strings.TrimSpace(f.Kind) == "" && f.LengthMm == 0:
		return errors.New("say what it is, as M3 pan or clip")
	case f.Keeping == InCell && !tray.Holds(f.Cell):
		return fmt.Errorf("the tray has no cell %q; it goes from A1 to %s", f.Cell, tray.Last())
	case f.Keeping == Laid && len(f.Pattern) > 0 && len(f.Pattern) != f.Count:
		return fmt.Errorf("the pattern shows %d of %d; lay out each", len(f.Pattern), f.Count)
	}
	return nil
}

// Shapes in which fasteners are laid out at once; each point can be moved after.
func Shapes() []string {
	return []string{"row", "two rows", "ring"}
}

// Lay puts count fasteners into a shape of Shapes, as they sat round a lid or a board; a row for a shape that
// is not known.
func Lay(shape string, count int) []Point {
	points := make([]Point, count)
	spread := func(i, n int) float64 {
		if n < 2 {
			return 0.5
		}
		return 0.1 + 0.8*float64(i)/float64(n-1)
	}
	for i := range points {
		switch shape {
		case "ring":
			turn := 2 * math.Pi * float64(i) / float64(count)
			points[i] = Point{0.5 + 0.4*math.Sin(turn), 0.5 - 0.4*math.Cos(turn)}
		case "two rows":
			upper := (count + 1) / 2
			if i < upper {
				points[i] = Point{spread(i, upper), 0.2}
			} else {
				points[i] = Point{spread(i-upper, count-upper), 0.8}
			}
		default:
			points[i] = Point{spread(i, count), 0.5}
		}
	}
	return points
}

var (
	screwSize = regexp.MustCompile(`(?i)^(m\d+(?:\.\d+)?|\d+-\d+|#\d+|\d+(?:\.\d+)?)x(\d+(?:\.\d+)?)(?:mm)?$`)
	plainMm   = regexp.MustCompile(`(?i)^(\d+(?:\.\d+)?)mm$`)
	toolWord  = regexp.MustCompile(`(?i)^(ph[0-4]|pz[0-4]|t\d{1,2}h?|hex|slot|nut)$`)
	washers   = map[string]bool{"plain": true, "spring": true, "toothed": true, "fibre": true, "insulating": true}
)

// parseFastener reads "4x M3x8 pan spring washer PH1 @A1"; the count was taken off already.
func parseFastener(count int, words []string) (Fastener, error) {
	f := Fastener{Count: count, Keeping: InHole, Pattern: []Point{}}
	kind, kept := []string{}, false
	for i := 0; i < len(words); i++ {
		word := words[i]
		next := ""
		if i+1 < len(words) {
			next = words[i+1]
		}
		if m := screwSize.FindStringSubmatch(word); m != nil {
			kind = append(kind, m[1])
			fmt.Sscan(m[2], &f.LengthMm) //nolint:errcheck // figures, by the pattern
			continue
		}
		if m := plainMm.FindStringSubmatch(word); m != nil && f.LengthMm == 0 {
			fmt.Sscan(m[1], &f.LengthMm) //nolint:errcheck // figures, by the pattern
			continue
		}
		switch lower := strings.ToLower(word); {
		case strings.HasPrefix(word, "@"):
			kept = true
			if err := f.keep(word[1:]); err != nil {
				return f, err
			}
		case lower == "washer":
			f.Washer = "plain"
		case washers[lower] && strings.EqualFold(next, "washer"):
			f.Washer = lower
			i++
		case toolWord.MatchString(word):
			f.Tool = word
			if (lower == "hex" || lower == "slot" || lower == "nut") && figures.MatchString(next) {
				f.Tool += " " + next
				i++
			}
		default:
			kind = append(kind, word)
		}
	}
	f.Kind = strings.Join(kind, " ")
	if !kept {
		return f, errors.New("say where they are kept: @A1 in the tray, @hole in their holes, @laid as they came")
	}
	return f, nil
}

var figures = regexp.MustCompile(`^\d+(\.\d+)?$`)

func (f *Fastener) keep(where string) error {
	shape := ""
	switch lower := strings.ToLower(where); {
	case lower == "hole":
		f.Keeping = InHole
	case lower == "laid":
		f.Keeping, shape = Laid, "row"
	case strings.HasPrefix(lower, "laid:"):
		f.Keeping, shape = Laid, strings.ReplaceAll(lower[len("laid:"):], "-", " ")
	case cellName.MatchString(where):
		f.Keeping, f.Cell = InCell, strings.ToUpper(where)
	default:
		return fmt.Errorf("@%s is no place; write a cell of the tray as @A1, or @hole, or @laid", where)
	}
	if shape != "" {
		f.Pattern = Lay(shape, f.Count)
	}
	return nil
}

// String writes the fastener as a line has it. A pattern that was drawn by hand is written as @laid.
func (f Fastener) String() string {
	words := []string{fmt.Sprintf("%dx", f.Count)}
	first, rest, _ := strings.Cut(f.Kind, " ")
	switch joined := fmt.Sprintf("%sx%g", first, f.LengthMm); {
	case f.LengthMm > 0 && screwSize.MatchString(joined):
		words = append(words, joined, rest)
	case f.LengthMm > 0:
		words = append(words, f.Kind, fmt.Sprintf("%gmm", f.LengthMm))
	default:
		words = append(words, f.Kind)
	}
	switch f.Washer {
	case "":
	case "plain":
		words = append(words, "washer")
	default:
		words = append(words, f.Washer, "washer")
	}
	words = append(words, f.Tool)
	switch f.Keeping {
	case InCell:
		words = append(words, "@"+f.Cell)
	case Laid:
		words = append(words, "@laid")
	default:
		words = append(words, "@hole")
	}
	return strings.Join(strings.Fields(strings.Join(words, " ")), " ")
}
