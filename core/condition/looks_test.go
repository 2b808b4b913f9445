package condition_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/condition"
)

// A round looks at a class on one board: at all kinds of a family, at none beside it, and at no other board.
func TestARoundIsALook(t *testing.T) {
	looks := condition.LooksOf([]condition.Survey{{On: "2024-01-01", Coverage: map[string]condition.Coverage{
		"batteries": condition.Inspected}}}, []condition.ClassLook{{Class: "battery", Assembly: 1, On: "2026-03-01"},
		{Class: "battery", Assembly: 1, On: "2025-03-01"}, {Class: "fan", Assembly: 2, On: "2026-04-01"}}, nil, nil,
		nil, nil)
	for _, c := range []struct {
		class    string
		assembly int64
		on       string
	}{{"battery-nicd", 1, "2026-03-01"}, {"battery-nicd", 2, "2024-01-01"}, {"fan", 2, "2026-04-01"}, {"fan", 1, ""},
		{"electrolytic", 1, ""}} {
		require.Equal(t, c.on, looks.At(c.class, c.assembly, "X1"), c.class)
	}
}
