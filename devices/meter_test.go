package devices

import (
	"bufio"
	"errors"
	"fmt"
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/core/colour"
)

// grey lies under every device of these tests.
func grey(name string) (colour.Spectrum, error) {
	if name == "nothing known" {
		return colour.Spectrum{}, errors.New("no such swatch")
	}
	return colour.Flat(0.4), nil
}

// device serves a stand-in and returns its address.
func device(t *testing.T, d *StandInMeter) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	go d.Serve(l) //nolint:errcheck // ends with the listener
	return l.Addr().String()
}

// odd answers every connection with given lines, one a request.
func odd(t *testing.T, answers ...string) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { l.Close() })
	go func() {
		for {
			conn, err := l.Accept()
			if err != nil {
				return
			}
			go func() {
				defer conn.Close()
				in := bufio.NewReader(conn)
				for _, a := range answers {
					if _, err := in.ReadString('\n'); err != nil {
						return
					}
					fmt.Fprint(conn, a)
				}
				in.ReadString('\n') //nolint:errcheck // silence is the answer
				time.Sleep(2 * time.Second)
			}()
		}
	}()
	return l.Addr().String()
}

const hello = "OK gyrophane-meter 1 X\n"

func TestAReadingIsTheSwatchWithNoise(t *testing.T) {
	c := Meter{Address: device(t, &StandInMeter{Swatch: grey, Seed: 7})}
	serial, err := c.Connected(t.Context())
	require.NoError(t, err)
	assert.Equal(t, serialName, serial)
	got, err := c.Measure(t.Context(), "grey card")
	require.NoError(t, err)
	assert.Equal(t, 3, got.Repeats)
	assert.Zero(t, got.Held)
	assert.Greater(t, got.Spread, 0.0, "no two measurements are alike")
	assert.Less(t, got.Spread, 0.01)
	exact := 0
	for i, r := range got.Spectrum {
		assert.InDelta(t, 0.4, r, 0.005, "%v nm", colour.NM(i))
		if r == 0.4 {
			exact++
		}
	}
	assert.Less(t, exact, colour.Bands, "it is not the swatch itself")
}

func TestItDriftsUntilItIsCalibratedAgain(t *testing.T) {
	now := time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)
	d := &StandInMeter{Swatch: grey, Seed: 1, Now: func() time.Time { return now }}
	answer, _ := d.answer("MEASURE")
	assert.Contains(t, answer, "ERR 11")
	answer, _ = d.answer("CALIBRATE")
	require.Equal(t, "OK", answer)
	answer, _ = d.answer("MEASURE")
	assert.Contains(t, answer, "ERR 13", "nothing lies under it")
	require.NoError(t, d.Lay("grey card"))
	level := func() float64 {
		answer, _ := d.answer("MEASURE")
		s, _, err := ParseMeasurement(strings.TrimPrefix(answer, "OK "))
		require.NoError(t, err, answer)
		var sum float64
		for _, r := range s {
			sum += r / colour.Bands
		}
		return sum
	}
	assert.InDelta(t, 0.4, level(), 0.001)
	now = now.Add(9 * time.Minute)
	assert.InDelta(t, 0.4*(1-9*driftAMin), level(), 0.002)
	now = now.Add(2 * time.Minute)
	answer, _ = d.answer("MEASURE")
	assert.Contains(t, answer, "ERR 12")
	d.answer("CALIBRATE")
	assert.InDelta(t, 0.4, level(), 0.001)
	answer, _ = d.answer("DANCE")
	assert.Contains(t, answer, "ERR 10")
}

func TestNotConnectedIsSaidSoon(t *testing.T) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	nobody := l.Addr().String()
	l.Close()
	for name, address := range map[string]string{
		"nobody listens":   nobody,
		"it says nothing":  odd(t),
		"something else":   odd(t, "220 mail ready\n"),
		"another version":  odd(t, "OK gyrophane-meter 9 X\n"),
		"an endless line":  odd(t, "OK "+strings.Repeat("x", 3*longestLine)),
		"it hangs up soon": odd(t, ""),
	} {
		_, err := Meter{Address: address, Step: 150 * time.Millisecond, Tries: 2}.Measure(t.Context(), "x")
		assert.ErrorIs(t, err, ErrNotConnected, name)
		assert.ErrorContains(t, err, address, name)
	}
}

func TestADeviceThatTalksNonsenseIsNotBelieved(t *testing.T) {
	for says, answers := range map[string][]string{
		"no such swatch":           {hello, "ERR 13 no such swatch\n"},
		"it answers":               {hello, "MAYBE\n"},
		"is not understood":        {hello, "OK\n", "OK 1 2\n"},
		"not a number":             {hello, "OK\n", "OK 380 10 1 NaN\n"},
		"announces":                {hello, "OK\n", "OK 380 10 36 0.5\n"},
		"cannot be used":           {hello, "OK\n", "OK 380 10 2 0.5 0.5\n"},
		"calibrate it and measure": {hello, "OK\n", "OK 380 10 36" + strings.Repeat(" 1.9", 36) + "\n"},
	} {
		_, err := Meter{Address: odd(t, answers...), Step: 300 * time.Millisecond, Tries: 1}.Measure(t.Context(), "x")
		require.Error(t, err, says)
		assert.ErrorContains(t, err, says)
		assert.NotErrorIs(t, err, ErrNotConnected, "it is connected, and wrong")
	}
	var refused Refusal
	_, err := Meter{Address: device(t, &StandInMeter{Swatch: grey})}.Measure(t.Context(), "nothing known")
	require.ErrorAs(t, err, &refused)
	assert.Equal(t, codeNothing, refused.Code)
	_, err = Meter{Address: "127.0.0.1:1"}.Measure(t.Context(), "a\nCALIBRATE")
	assert.ErrorContains(t, err, "one line", "a swatch's name carries no second request")
}

func TestAShorterGridIsHeldFlat(t *testing.T) {
	s, held, err := ParseMeasurement("400 10 31" + strings.Repeat(" 0.5", 31))
	require.NoError(t, err)
	assert.Equal(t, 5, held)
	assert.Equal(t, colour.Flat(0.5), s)
}

func FuzzParseMeasurement(f *testing.F) {
	for _, seed := range []string{"380 10 36" + strings.Repeat(" 0.5", 36), "400 20 16" + strings.Repeat(" 0.1", 16), "", "NaN", "1 1 1 1", "380 -10 36 1"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, answer string) {
		s, _, err := ParseMeasurement(answer)
		if err != nil {
			return
		}
		for _, r := range s {
			require.True(t, r >= -0.05 && r <= 1.2, r)
		}
	})
}
