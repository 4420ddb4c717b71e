// Package devices speaks to a hand-held colour meter: a small line protocol over
// TCP, the client that reads a swatch with it, and the stand-in that ships with
// Gyrophane where no real device is at hand.
//
// The protocol (version 1) is UTF-8 text, one line a message, ended by a line
// feed, at most 2048 bytes. The device answers each request with one line, "OK"
// and what was asked for, or "ERR", a code and a sentence:
//
//	HELLO        OK gyrophane-meter 1 SERIAL
//	CALIBRATE    OK
//	LAY SWATCH   OK                    (stand-in only: what lies under it)
//	MEASURE      OK 380 10 36 R R ...  (first nm, step nm, count, reflectances)
//	BYE          OK                    (and the device hangs up)
//
// Codes: 10 a request that is not understood, 11 not calibrated, 12 the
// calibration is too old, 13 nothing lies under the device.
package devices

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"math"
	"net"
	"strconv"
	"strings"
	"time"

	"gyrophane/core/colour"
)

const (
	version     = "1"
	longestLine = 2048
	// MeterAddress is where the stand-in listens and the client looks.
	MeterAddress = "127.0.0.1:8650"
)

// ErrNotConnected says that no meter answers.
var ErrNotConnected = errors.New("the meter is not connected")

// Refusal is an ERR line of the device.
type Refusal struct {
	Code     int
	Sentence string
}

func (r Refusal) Error() string { return r.Sentence }

const (
	codeRequest      = 10
	codeUncalibrated = 11
	codeOld          = 12
	codeNothing      = 13
)

// Meter reads swatches with a device at an address.
type Meter struct {
	Address string
	// Step is how long the device may take over one answer; 2 s when 0.
	Step time.Duration
	// Tries is how often a connection is tried; 3 when 0.
	Tries int
}

// Measured is a swatch as the device saw it.
type Measured struct {
	Spectrum colour.Spectrum // reflectance, the mean of several measurements
	Repeats  int
	// Spread is the largest standard deviation of the repeats over the bands:
	// how steady the hand, or the stand-in's noise, was.
	Spread float64
	Held   int // bands at the ends that the device does not measure
	Serial string
}

// repeats is how often a swatch is measured for one reading.
const repeats = 3

// Connected asks the device for its serial number.
func (c Meter) Connected(ctx context.Context) (serial string, err error) {
	err = c.session(ctx, func(t *talk) error {
		serial = t.serial
		return nil
	})
	return serial, err
}

// Measure calibrates where the device asks for it, and measures what lies under
// it several times. Swatch names what the stand-in is to lay under itself; empty
// leaves that alone.
func (c Meter) Measure(ctx context.Context, swatch string) (Measured, error) {
	if strings.ContainsAny(swatch, "\r\n") || len(swatch) > 300 {
		return Measured{}, errors.New("a swatch is named in one line of at most 300 characters")
	}
	var out Measured
	err := c.session(ctx, func(t *talk) error {
		if swatch != "" {
			if _, err := t.ask("LAY " + swatch); err != nil {
				return err
			}
		}
		var all []colour.Spectrum
		for len(all) < repeats {
			s, held, err := t.measure()
			if err != nil {
				return err
			}
			all = append(all, s)
			out.Held = held
		}
		out.Spectrum, out.Spread = mean(all)
		out.Repeats, out.Serial = len(all), t.serial
		return nil
	})
	return out, err
}

func mean(all []colour.Spectrum) (m colour.Spectrum, spread float64) {
	n := float64(len(all))
	for i := range m {
		var sum, square float64
		for _, s := range all {
			sum += s[i]
		}
		m[i] = sum / n
		for _, s := range all {
			square += (s[i] - m[i]) * (s[i] - m[i])
		}
		spread = max(spread, math.Sqrt(square/(n-1)))
	}
	return m, spread
}

// talk is one open connection.
type talk struct {
	conn   net.Conn
	in     *bufio.Reader
	step   time.Duration
	serial string
}

// session connects, says hello, and hangs up after what is to be done. Only
// connecting and the greeting are tried again; a device that answers is
// believed.
func (c Meter) session(ctx context.Context, do func(*talk) error) error {
	step, tries := c.Step, c.Tries
	if step == 0 {
		step = 2 * time.Second
	}
	if tries == 0 {
		tries = 3
	}
	var err error
	for try := range tries {
		if try > 0 {
			select {
			case <-ctx.Done():
				return ctx.Err()
			case <-time.After(time.Duration(try) * 100 * time.Millisecond):
			}
		}
		var t *talk
		if t, err = c.connect(ctx, step); err == nil {
			defer t.conn.Close()
			stop := context.AfterFunc(ctx, func() { t.conn.Close() })
			defer stop()
			if err = do(t); err == nil {
				_, _ = t.ask("BYE") // politeness; it may have hung up already
			}
			return err
		}
	}
	return fmt.Errorf("%w: nothing that speaks as a meter answers at %s (%s)", ErrNotConnected, c.Address, plainly(err))
}

func plainly(err error) string {
	var network net.Error
	switch {
	case errors.As(err, &network) && network.Timeout():
		return "it took too long"
	case strings.Contains(err.Error(), "refused"):
		return "nobody listens there"
	}
	return err.Error()
}

func (c Meter) connect(ctx context.Context, step time.Duration) (*talk, error) {
	dial := net.Dialer{Timeout: step}
	conn, err := dial.DialContext(ctx, "tcp", c.Address)
	if err != nil {
		return nil, err
	}
	t := &talk{conn: conn, in: bufio.NewReaderSize(conn, longestLine), step: step}
	hello, err := t.ask("HELLO")
	if err == nil {
		words := strings.Fields(hello)
		if len(words) != 3 || words[0] != "gyrophane-meter" || words[1] != version {
			err = fmt.Errorf("it says %.40q, which is no meter of version %s", hello, version)
		} else {
			t.serial = words[2]
			return t, nil
		}
	}
	conn.Close()
	return nil, err
}

// ask sends one line and reads the answer without its OK.
func (t *talk) ask(request string) (string, error) {
	if err := t.conn.SetDeadline(time.Now().Add(t.step)); err != nil {
		return "", err
	}
	if _, err := t.conn.Write([]byte(request + "\n")); err != nil {
		return "", err
	}
	line, err := readLine(t.in)
	if err != nil {
		return "", err
	}
	word, rest, _ := strings.Cut(line, " ")
	switch word {
	case "OK":
		return rest, nil
	case "ERR":
		code, sentence, _ := strings.Cut(rest, " ")
		n, _ := strconv.Atoi(code) // 0 for a code that is none
		return "", Refusal{n, sentence}
	}
	return "", fmt.Errorf("it answers %.40q, which is not understood", line)
}

func readLine(in *bufio.Reader) (string, error) {
	line, err := in.ReadSlice('\n')
	if errors.Is(err, bufio.ErrBufferFull) {
		return "", fmt.Errorf("a line is longer than %d bytes", longestLine)
	}
	return strings.TrimRight(string(line), "\r\n"), err
}

func (t *talk) measure() (colour.Spectrum, int, error) {
	answer, err := t.ask("MEASURE")
	var refusal Refusal
	if errors.As(err, &refusal) && (refusal.Code == codeUncalibrated || refusal.Code == codeOld) {
		if _, err = t.ask("CALIBRATE"); err == nil {
			answer, err = t.ask("MEASURE")
		}
	}
	if err != nil {
		return colour.Spectrum{}, 0, err
	}
	return ParseMeasurement(answer)
}

// ParseMeasurement reads the answer to MEASURE, "380 10 36 R R ...", and brings
// it to the bands; held counts those at the ends that were not measured.
func ParseMeasurement(answer string) (s colour.Spectrum, held int, err error) {
	words := strings.Fields(answer)
	if len(words) < 4 || len(words) > 3+200 {
		return s, 0, fmt.Errorf("the meter's measurement %.40q is not understood", answer)
	}
	v := make([]float64, len(words))
	for i, w := range words {
		if v[i], err = strconv.ParseFloat(w, 64); err != nil || math.IsNaN(v[i]) || math.IsInf(v[i], 0) {
			return s, 0, fmt.Errorf("the meter's measurement holds %.20q, which is not a number", w)
		}
	}
	if v[2] != float64(len(v)-3) {
		return s, 0, fmt.Errorf("the meter announces %v values and sends %d", v[2], len(v)-3)
	}
	m := colour.Measured{Value: v[3:]}
	for i := range m.Value {
		m.NM = append(m.NM, v[0]+float64(i)*v[1])
	}
	s, held, err = m.Resample()
	if err != nil {
		return s, 0, fmt.Errorf("the meter's measurement cannot be used: %w", err)
	}
	for i, r := range s {
		if r < -0.05 || r > 1.2 {
			return s, 0, fmt.Errorf("the meter measured a reflectance of %.3g at %v nm, which cannot be: calibrate it and measure again", r, colour.NM(i))
		}
	}
	return s, held, nil
}
