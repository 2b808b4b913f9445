package malformed_test

import (
	"errors"
	"fmt"
	"io"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/malformed"
)

func ExampleError() {
	fmt.Println(malformed.At(3, "%q is no figure", "x"))
	fmt.Println(malformed.In("offset", "lies outside of the socket"))
	fmt.Println(&malformed.Error{Line: 2, Column: 7, Text: "84-13", Err: errors.New("there is no month 13")})
	fmt.Println(&malformed.Error{Column: 5, Err: errors.New("'2' is no binary digit")})
	// Output:
	// line 3: "x" is no figure
	// lies outside of the socket
	// line 2, column 7: "84-13": there is no month 13
	// column 5: '2' is no binary digit
}

func TestTheCauseIsFound(t *testing.T) {
	err := fmt.Errorf("a sheet: %w", malformed.At(3, "broken off: %w", io.EOF))
	require.ErrorIs(t, err, io.EOF)
	var found *malformed.Error
	require.ErrorAs(t, err, &found)
	require.Equal(t, 3, found.Line)
}
