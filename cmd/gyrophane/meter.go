package main

import (
	"context"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/signal"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"gyrophane/core/paint"
	"gyrophane/devices"
)

func meterCommand() *cobra.Command {
	var address, swatch string
	var seed uint64
	c := &cobra.Command{
		Use:   "meter",
		Short: "A stand-in for a hand-held colour meter, on this machine only",
		Long: "A stand-in for a hand-held colour meter: it answers on loopback with the spectrum of a chosen swatch, with the noise and drift of a real one.\n" +
			"The application reads it; docs/formats.md describes the protocol.",
		Example: "gyrophane meter --swatch \"PB29=1 PW6=9 acrylic dry\"",
		Args:    cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			l, err := listenLoopback(address)
			if err != nil {
				return err
			}
			device := standIn(seed)
			if swatch != "" {
				if err := device.Lay(swatch); err != nil {
					l.Close()
					return err
				}
			}
			fmt.Fprintf(cmd.OutOrStdout(), "the stand-in meter is at %s (interrupt to end it)\n", l.Addr())
			ctx, stop := signal.NotifyContext(cmd.Context(), syscall.SIGINT, syscall.SIGTERM)
			defer stop()
			defer context.AfterFunc(ctx, func() { l.Close() })()
			return device.Serve(l)
		},
	}
	c.Flags().StringVar(&address, "listen", devices.MeterAddress, "loopback address and port")
	c.Flags().StringVar(&swatch, "swatch", "", "what lies under it: paints as PAINT=PARTS, a medium, wet or dry")
	c.Flags().Uint64Var(&seed, "seed", 0, "the same noise every time; 0 for new noise")
	return c
}

func standIn(seed uint64) *devices.StandInMeter {
	if seed == 0 {
		seed = uint64(time.Now().UnixNano())
	}
	return &devices.StandInMeter{Swatch: paint.ParseSwatch, Seed: seed}
}

// listenLoopback listens on this machine only: the stand-in asks nobody who
// they are.
func listenLoopback(address string) (net.Listener, error) {
	l, err := listen(address, false)
	if err != nil {
		return nil, err
	}
	if !l.Addr().(*net.TCPAddr).IP.IsLoopback() {
		l.Close()
		return nil, fmt.Errorf("--listen %q: the stand-in listens on this machine only, like %s", address, devices.MeterAddress)
	}
	return l, nil
}

// serveMeter runs the stand-in beside the application until ctx ends, unless a
// meter answers at the address already.
func serveMeter(ctx context.Context, address string, log *slog.Logger) {
	if _, err := (devices.Meter{Address: address, Tries: 1}).Connected(ctx); err == nil {
		return
	}
	l, err := listenLoopback(address)
	if err != nil {
		log.Error("the stand-in meter does not start", "error", err.Error())
		return
	}
	context.AfterFunc(ctx, func() { l.Close() })
	go func() {
		if err := standIn(0).Serve(l); err != nil {
			log.Error("the stand-in meter stopped", "error", err.Error())
		}
	}()
	log.Info("stand-in meter", "address", l.Addr().String())
}

// meterAddress is where the application looks for the meter.
func meterAddress() string {
	if a := os.Getenv("GYROPHANE_METER"); a != "" {
		return a
	}
	return devices.MeterAddress
}
