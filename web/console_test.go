package web_test

import (
	"bufio"
	"fmt"
	"io"
	"net"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/console"
	"frugalheron/app/people"
	"frugalheron/app/practice"
	"frugalheron/demo"
)

// Consoles over the API: who may listen and type, where what is wrong is told, what a stale change meets, and that a viewer
// reads no private name that a machine shows.
func TestConsolesOverTheAPI(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	at := s.path("/api/machines/{machine}/console")
	for _, path := range []string{"/texts", "/listen"} {
		status, _ := viewer.send("POST", at+path, fieldsOf{"text": "x"})
		require.Equal(t, 403, status, path)
	}
	for field, fields := range map[string]fieldsOf{
		"body.text":   {"text": " "},
		"body.on":     {"text": "x", "on": "2999-01-01"},
		"body.during": {"text": "x", "during": strings.Repeat("a", 201)},
	} {
		status, body := technician.send("POST", at+"/texts", fields)
		require.Equal(t, 422, status, field)
		require.Contains(t, body, field)
	}
	status, body := technician.send("POST", at+"/listen", fieldsOf{})
	require.Equal(t, 422, status)
	require.Contains(t, body, "No console is set up")

	_, err := s.actions.People.AddParty(t.Context(), action.Actor{Role: action.Curator}, people.PartyInput{
		Name: "Perpetua Quill", Kind: "person", Private: true, Role: "a former owner"})
	require.NoError(t, err)
	text := fieldsOf{"text": "MONITOR V2.3\nREGISTERED TO PERPETUA QUILL\nMEMORY 64K OK"}
	status, body = viewer.send("POST", at+"/read", text)
	require.Equal(t, 200, status, "to ask is no change")
	require.NotContains(t, body, "PERPETUA")
	status, body = technician.send("POST", at+"/texts", text)
	require.Equal(t, 201, status, body)
	kept := decoded[console.CaptureKept](t, body)
	status, body = viewer.send("GET", at, nil)
	require.Equal(t, 200, status)
	require.NotContains(t, body, "PERPETUA")
	_, body = technician.send("GET", at, nil)
	require.Contains(t, body, "PERPETUA")

	one := fmt.Sprintf("/api/console-captures/%d", kept.ID)
	for line, want := range map[int]int{3: 201, 2: 422, 99: 422} {
		status, body = technician.send("POST", one+"/statements", fieldsOf{"line": line, "attribute": "memory"})
		require.Equal(t, want, status, body)
	}
	for _, path := range []string{"/stop", "/typed"} {
		status, body = technician.send("POST", one+path, fieldsOf{"typed": "x"})
		require.Equal(t, 422, status, body)
		require.Contains(t, body, "obody listens to it any more")
	}
	status, body = curator.send("POST", one+"/void?version=7", nil)
	require.Equal(t, 409, status, body)
	require.Equal(t, kept.ID, problemOf(t, body).Newer.Capture.ID)
	status, body = curator.send("POST", one+"/void?version=1", nil)
	require.Equal(t, 422, status)
	require.Contains(t, body, "1 statement")
}

// A port that hangs up ends what is heard; of two who begin at once one is heard, of two who stop at once both are told.
func TestAConsoleThatHangsUpAndTwoWhoListen(t *testing.T) {
	s := newSite(t)
	curator, technician := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1])
	s.actions.WithInstruments(app.Instruments{Console: onLoopback(t, func(connection net.Conn) {
		connection.Write([]byte("64K OK\r\nLOAD")) //nolint:errcheck // who listens finds out
		time.Sleep(20 * time.Millisecond)
	})})
	at := s.path("/api/machines/{machine}/console")
	status, body := technician.send("POST", at+"/listen", fieldsOf{"line": "9600 8N1"})
	require.Equal(t, 201, status, body)
	var heard console.Capture
	require.Eventually(t, func() bool {
		_, body := technician.send("GET", at, nil)
		heard = decoded[console.Console](t, body).Captures[0]
		return heard.Until != nil
	}, 10*time.Second, 20*time.Millisecond)
	require.Contains(t, heard.Ended, "does not answer any more")
	require.Equal(t, "stopped", string(heard.Reading.Outcome), "within a line")
	require.Equal(t, 12, heard.Bytes)

	s.actions.WithInstruments(app.Instruments{Console: onLoopback(t, func(connection net.Conn) {
		io.Copy(io.Discard, connection) //nolint:errcheck // until who listens hangs up
	})})
	var together sync.WaitGroup
	answers := make(chan int, 8)
	for range 4 {
		for _, who := range []*client{curator, technician} {
			together.Go(func() {
				status, _ := who.send("POST", at+"/listen", fieldsOf{})
				answers <- status
			})
		}
	}
	together.Wait()
	close(answers)
	begun := map[int]int{}
	for status := range answers {
		begun[status]++
	}
	require.Equal(t, map[int]int{201: 1, 422: 7}, begun)
	_, body = technician.send("GET", at, nil)
	stop := fmt.Sprintf("/api/console-captures/%d/stop", decoded[console.Console](t, body).Port.Listening)
	for _, who := range []*client{curator, technician} {
		together.Go(func() {
			status, body := who.send("POST", stop, nil)
			require.Contains(t, []int{200, 422}, status, body)
		})
	}
	together.Wait()
	_, body = technician.send("GET", at, nil)
	require.Zero(t, decoded[console.Console](t, body).Port.Listening)
}

// Practice over the API: each account has its own, a viewer may practise, and what cannot be is refused in words.
func TestPracticeOverTheAPI(t *testing.T) {
	s := newSite(t)
	technician, viewer := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	status, body := viewer.send("POST", "/api/practice", fieldsOf{})
	require.Equal(t, 422, status)
	require.Contains(t, body, "No practice machine is set up")
	s.actions.WithInstruments(app.Instruments{Practice: onLoopback(t, func(connection net.Conn) {
		for in := bufio.NewScanner(connection); in.Scan(); {
			word, _, _ := strings.Cut(in.Text(), " ")
			fmt.Fprintln(connection, map[string]string{"*IDN?": "bench,stand-in machine,0,1", "SIM:BENCH": "OK",
				"SIM:STATE?": `{"lamps":"none"}`, "SIM:ANSWER?": `{"fault":"sags","place":"Supply"}`}[word])
		}
	})})
	status, body = viewer.send("POST", "/api/practice/deeds", fieldsOf{"kind": "look"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "one is begun yet")
	status, body = viewer.send("POST", "/api/practice", fieldsOf{"seed": 12})
	require.Equal(t, 200, status, body)
	require.NotContains(t, body, "answer")
	for _, wrong := range []fieldsOf{{"kind": "kick"}, {"kind": "fit", "what": "x"}, {"kind": "measure",
		"what": "+5"}} {
		status, body = viewer.send("POST", "/api/practice/deeds", wrong)
		require.Equal(t, 422, status, body)
	}
	_, body = viewer.send("POST", "/api/practice/deeds", fieldsOf{"kind": "look"})
	told := decoded[practice.Practice](t, body)
	require.Equal(t, "lit: none", told.Exercise.Log[0].Seen)
	require.Nil(t, told.Exercise.Is, "nobody reads what it is before they said something")
	status, body = viewer.send("POST", "/api/practice/diagnosis", fieldsOf{"fault": "sags", "place": "Supply"})
	require.Equal(t, 200, status, body)
	require.NotNil(t, decoded[practice.Practice](t, body).Debrief)
	_, body = technician.send("GET", "/api/practice", nil)
	require.Nil(t, decoded[practice.Practice](t, body).Exercise)
	_, body = s.as(t, demo.Accounts[0]).send("GET", "/api/history", nil)
	require.NotContains(t, body, "practi")
}

// onLoopback lets something talk with each who calls at an address.
func onLoopback(t *testing.T, talk func(net.Conn)) string {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { listener.Close() })
	go func() {
		for {
			connection, err := listener.Accept()
			if err != nil {
				return
			}
			go func() {
				defer connection.Close()
				talk(connection)
			}()
		}
	}()
	return listener.Addr().String()
}
