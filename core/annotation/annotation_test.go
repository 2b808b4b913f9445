package annotation_test

import (
	"encoding/xml"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/annotation"
)

var entries = []annotation.Entry{
	{Line: 1, Designators: []string{"U40", "U41", "U42"}, Words: "41256-15 8512"},
	{Line: 2, Designators: []string{"U1"}, Words: `HX9040 <&"> 8431`},
	{Line: 3, Designators: []string{"X1"}, Words: "18.432 MHz"},
}

func ExampleLegendOf() {
	p := annotation.Annotation{Callouts: append(annotation.Row([]string{"U40", "U41", "U42"}, 0.1, 0.5, 0.5, 0.52),
		annotation.Callout{Designator: "U1", X: 0.9, Y: 0.2}, annotation.Callout{Designator: "U99", X: 0.5, Y: 0.9})}
	legend := annotation.LegendOf(p, entries)
	for _, c := range legend.Numbered {
		fmt.Printf("%d %s line %d (%.2f %.2f)\n", c.N, c.Designator, c.Line, c.X, c.Y)
	}
	fmt.Println(legend.Unplaced, legend.Strays)
	// Output:
	// 1 U1 line 2 (0.90 0.20)
	// 2 U40 line 1 (0.10 0.50)
	// 3 U41 line 1 (0.30 0.51)
	// 4 U42 line 1 (0.50 0.52)
	// 5 U99 line 0 (0.50 0.90)
	// [{3 [X1] 18.432 MHz}] [U99]
}

func TestPlansAreCheckedAndDrawn(t *testing.T) {
	p := annotation.Annotation{
		Callouts: []annotation.Callout{{"U1", 0.2, 0.2}, {"U40", 0.5, 0.6}, {"U41", 0.7, 0.6}},
		Blocks: []annotation.Block{{Name: "processor", Members: []string{"U1"}, Reaches: []string{"memory & more"}},
			{Name: "memory & more", Members: []string{"U40", "U41"}}},
	}
	require.NoError(t, annotation.Check(p))
	box := p.BoxOf(p.Blocks[1])
	require.InDelta(t, 0.475, box.X, 1e-9)
	require.InDelta(t, 0.25, box.W, 1e-9)
	drawn := annotation.Draw(`Board "<1>"`, "/picture?a=1&b=2", 1600, 1200, p, annotation.LegendOf(p, entries))
	decoder := xml.NewDecoder(strings.NewReader(drawn))
	for {
		_, err := decoder.Token()
		if err == io.EOF {
			break
		}
		require.NoError(t, err)
	}
	for _, want := range []string{"may reach memory &amp; more", "Not on the picture: U42, X1",
		"HX9040 &lt;&amp;&#34;&gt; 8431", "a=1&amp;b=2"} {
		require.Contains(t, drawn, want)
	}
	require.Equal(t, 3, strings.Count(drawn, "<circle"))

	for want, change := range map[string]func(p *annotation.Annotation){
		"no designator":               func(p *annotation.Annotation) { p.Callouts[0].Designator = " " },
		"U40 is on the picture twice": func(p *annotation.Annotation) { p.Callouts[0].Designator = "U40" },
		"outside of the picture":      func(p *annotation.Annotation) { p.Callouts[2].X = 1.2 },
		"a name of its own":           func(p *annotation.Annotation) { p.Blocks[1].Name = "processor" },
		"holds no callout":            func(p *annotation.Annotation) { p.Blocks[0].Members = nil },
		"which is not on":             func(p *annotation.Annotation) { p.Blocks[0].Members = []string{"U77"} },
		"no other outline":            func(p *annotation.Annotation) { p.Blocks[0].Reaches = []string{"processor"} },
	} {
		broken := annotation.Annotation{Callouts: append([]annotation.Callout{}, p.Callouts...),
			Blocks: append([]annotation.Block{}, p.Blocks...)}
		change(&broken)
		require.ErrorContains(t, annotation.Check(broken), want)
	}
	require.Equal(t, []annotation.Callout{{"U1", 0.3, 0.4}}, annotation.Row([]string{"U1"}, 0.3, 0.4, 0.9, 0.9))
}
