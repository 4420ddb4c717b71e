package devices

import (
	"bufio"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"net"
	"strings"
	"sync"
	"time"

	"gyrophane/core/colour"
)

// StandInMeter is a simulated device: it measures whatever swatch is laid under it,
// with noise and with drift since it was last calibrated.
type StandInMeter struct {
	// Swatch is the reflectance of a swatch by its name.
	Swatch func(name string) (colour.Spectrum, error)
	// Now is the clock; time.Now when nil.
	Now func() time.Time
	// Seed makes the noise the same every time.
	Seed uint64

	mu         sync.Mutex
	noise      *rand.Rand
	calibrated time.Time
	lying      *colour.Spectrum
}

// What the stand-in's noise and drift are like.
const (
	darkNoise   = 0.0006           // standard deviation in every band
	lightNoise  = 0.002            // and of the reflectance
	driftAMin   = 0.0015           // gain lost a minute since calibration, red a little more
	mostDrift   = 0.03             // and no more than this
	calibration = 10 * time.Minute // good for so long
	idle        = time.Minute      // a connection without requests is hung up
	mostAtOnce  = 8                // connections
	serialName  = "STAND-IN"
)

// Lay lays a swatch under the device.
func (d *StandInMeter) Lay(swatch string) error {
	s, err := d.Swatch(strings.TrimSpace(swatch))
	if err != nil {
		return err
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	d.lying = &s
	return nil
}

// Serve answers on a listener until it is closed.
func (d *StandInMeter) Serve(l net.Listener) error {
	turns := make(chan struct{}, mostAtOnce)
	for {
		conn, err := l.Accept()
		if errors.Is(err, net.ErrClosed) {
			return nil
		}
		if err != nil {
			return err
		}
		select {
		case turns <- struct{}{}:
			go func() {
				defer func() { <-turns }()
				defer conn.Close()
				d.answerAll(conn)
			}()
		default:
			conn.Close()
		}
	}
}

func (d *StandInMeter) answerAll(conn net.Conn) {
	in := bufio.NewReaderSize(conn, longestLine)
	for {
		if conn.SetDeadline(time.Now().Add(idle)) != nil {
			return
		}
		line, err := readLine(in)
		if err != nil {
			return
		}
		answer, bye := d.answer(line)
		if _, err := conn.Write([]byte(answer + "\n")); err != nil || bye {
			return
		}
	}
}

// answer is the device's answer to one request.
func (d *StandInMeter) answer(line string) (answer string, bye bool) {
	request, what, _ := strings.Cut(line, " ")
	if request == "LAY" {
		if err := d.Lay(what); err != nil {
			return refusal(codeNothing, err.Error()), false
		}
		return "OK", false
	}
	d.mu.Lock()
	defer d.mu.Unlock()
	switch request {
	case "HELLO":
		return "OK gyrophane-meter " + version + " " + serialName, false
	case "CALIBRATE":
		d.calibrated = d.now()
		return "OK", false
	case "MEASURE":
		return d.measured(), false
	case "BYE":
		return "OK", true
	}
	return refusal(codeRequest, "requests are HELLO, CALIBRATE, LAY, MEASURE and BYE"), false
}

func refusal(code int, sentence string) string {
	return fmt.Sprintf("ERR %d %s", code, strings.NewReplacer("\r", " ", "\n", " ").Replace(sentence))
}

func (d *StandInMeter) now() time.Time {
	if d.Now != nil {
		return d.Now()
	}
	return time.Now()
}

func (d *StandInMeter) measured() string {
	age := d.now().Sub(d.calibrated)
	switch {
	case d.calibrated.IsZero():
		return refusal(codeUncalibrated, "lay the meter on its white tile and calibrate it first")
	case age > calibration:
		return refusal(codeOld, "the calibration is too old; lay the meter on its white tile and calibrate it again")
	case d.lying == nil:
		return refusal(codeNothing, "nothing lies under the meter")
	}
	if d.noise == nil {
		d.noise = rand.New(rand.NewPCG(d.Seed, d.Seed^0x9e3779b97f4a7c15)) // the same noise for the same seed
	}
	drift := min(driftAMin*age.Minutes(), mostDrift)
	var b strings.Builder
	fmt.Fprintf(&b, "OK %d %d %d", colour.FirstNM, colour.StepNM, colour.Bands)
	for i, r := range d.lying {
		tilt := float64(i) / (colour.Bands - 1) // the lamp warms: red drifts most
		r *= 1 - drift*(0.7+0.6*tilt)
		r += d.noise.NormFloat64() * math.Hypot(darkNoise, lightNoise*r)
		fmt.Fprintf(&b, " %.5f", max(r, 0))
	}
	return b.String()
}
