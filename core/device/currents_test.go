package device_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/device"
)

func TestCurrents(t *testing.T) {
	read, err := device.ParseCurrents("+5 180/260, +12 20 mA,-5V 1.5,")
	require.NoError(t, err)
	require.Equal(t, []device.Current{{"+5", 180, 260}, {"+12", 20, 0}, {"-5", 1.5, 0}}, read)
	for text, want := range map[string]string{"5 V": "is no current", "+5 200/100": "less than typically",
		"+5 1, +5 2": "twice", "+5 lots": "is no current"} {
		_, err := device.ParseCurrents(text)
		require.ErrorContains(t, err, want)
	}
}
