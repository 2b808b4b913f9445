package subnet_test

import (
	"encoding/json"
	"fmt"
	"net/netip"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/malformed"
	"frugalheron/core/subnet"
)

func ExampleCheck() {
	r, _ := subnet.Check(subnet.Settings{Address: "192.0.2.17", Mask: "255.255.255.240", Broadcast: "192.0.2.255",
		Gateway: "192.0.2.1"})
	fmt.Println(r.OK, *r.Network, *r.Broadcast)
	fmt.Println(strings.Join(r.Why, "\n"))
	// Output:
	// false 192.0.2.16 192.0.2.31
	// the broadcast of 192.0.2.16/28 is 192.0.2.31, not 192.0.2.255
	// the gateway 192.0.2.1 lies outside of 192.0.2.16/28: nothing reaches it
}

func TestCheck(t *testing.T) {
	for _, c := range []struct{ address, mask, broadcast, gateway, want string }{
		{"192.0.2.17", "255.255.255.0", "192.0.2.255", "192.0.2.1", "ok mask host broadcast gateway"},
		{"192.0.2.17/24", "", "", "192.0.2.1", "ok mask host gateway"},
		{"192.000.002.017", "24", "", "", "ok mask host"},
		{"192.0.2.0", "/24", "", "", "mask !host"},
		{"192.0.2.255", "/24", "", "", "mask !host"},
		{"192.0.2.1", "255.0.255.0", "192.0.2.255", "192.0.2.1", "!mask"},
		{"192.0.2.1", "/31", "", "", "!mask"},
		{"192.0.2.1", "/30", "", "192.0.2.3", "mask host !gateway"},
		{"192.0.2.1", "/24", "", "192.0.2.1", "mask host !gateway"},
		{"192.0.2.1", "/24", "", "192.0.3.1", "mask host !gateway"},
		{"192.0.2.1", "", "192.0.2.255", "192.0.2.9", "ok"},
		{"", "/24", "192.0.2.255", "", "ok mask"},
		{"", "", "", "", "ok"},
	} {
		r, err := subnet.Check(subnet.Settings{Address: c.address, Mask: c.mask, Broadcast: c.broadcast,
			Gateway: c.gateway})
		require.NoError(t, err)
		got := []string{}
		if r.OK {
			got = append(got, "ok")
		}
		for _, part := range []struct {
			name string
			ok   *bool
		}{{"mask", r.MaskOK}, {"host", r.HostOK}, {"broadcast", r.BroadcastOK}, {"gateway", r.GatewayOK}} {
			if part.ok != nil && *part.ok {
				got = append(got, part.name)
			} else if part.ok != nil {
				got = append(got, "!"+part.name)
			}
		}
		require.Equal(t, c.want, strings.Join(got, " "), c)
		require.Equal(t, !r.OK, len(r.Why) > 0 && strings.Contains(c.want, "!"), r.Why)
		told, err := json.Marshal(r)
		require.NoError(t, err)
		require.NotContains(t, string(told), `"why":null`)
	}
	for field, s := range map[string]subnet.Settings{"address": {Address: "192.0.2"}, "mask": {Mask: "/33"},
		"broadcast": {Broadcast: "1.2.3.256"}, "gateway": {Gateway: "1.2.3.4.5"}} {
		_, err := subnet.Check(s)
		var wrong *malformed.Error
		require.ErrorAs(t, err, &wrong)
		require.Equal(t, field, wrong.Field)
	}
}

// It agrees with the standard library on where a network begins, and which hosts are in it.
func TestAgreesWithPrefixes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		address := netip.AddrFrom4([4]byte(rapid.SliceOfN(rapid.Byte(), 4, 4).Draw(t, "address")))
		gateway := netip.AddrFrom4([4]byte(rapid.SliceOfN(rapid.Byte(), 4, 4).Draw(t, "gateway")))
		prefix := netip.PrefixFrom(address, rapid.IntRange(1, 30).Draw(t, "prefix")).Masked()
		r, err := subnet.Check(subnet.Settings{Address: address.String(), Mask: fmt.Sprintf("/%d", prefix.Bits()),
			Gateway: gateway.String()})
		require.NoError(t, err)
		require.Equal(t, prefix.Addr().String(), *r.Network)
		if *r.GatewayOK {
			require.True(t, prefix.Contains(gateway))
		}
	})
}
