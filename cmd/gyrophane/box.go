package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"gyrophane/api"
	"gyrophane/core/paint"
	"gyrophane/exchange"
	"gyrophane/store"
)

// studio is what a painter has: a box, what its tubes cost, and the colours that
// are wanted.
type studio struct {
	whose  string
	box    []*paint.Paint
	prices map[string]float64
	wanted []exchange.Wanted
}

// openStudio finds a painter's box and wanted colours in the database of
// DATABASE_URL; without one it is the made-up demo studio.
func openStudio(ctx context.Context, name string) (out studio, err error) {
	url := os.Getenv("DATABASE_URL")
	var rows []exchange.BoxPaint
	switch {
	case url != "":
		out, rows, err = keptStudio(ctx, url, name)
	case name != "":
		return out, errors.New("--painter: DATABASE_URL is not set, so there is no painter to look for")
	default:
		out = studio{whose: "the made-up demo studio, for DATABASE_URL is not set", wanted: exchange.DemoWanted}
		rows, err = exchange.DemoBox()
	}
	if err != nil {
		return out, err
	}
	out.box, out.prices, err = exchange.OpenBox(rows)
	return out, err
}

func keptStudio(ctx context.Context, url, name string) (out studio, box []exchange.BoxPaint, err error) {
	s, err := store.Open(url)
	if err != nil {
		return out, nil, err
	}
	defer s.Close()
	p, err := onePainter(ctx, s, name)
	if err != nil {
		return out, nil, err
	}
	out.whose = p.Name
	tubes, err := s.Tubes(ctx, p.ID)
	if err != nil {
		return out, nil, err
	}
	wanted, err := s.Wanted(ctx, p.ID)
	if err != nil {
		return out, nil, err
	}
	for _, w := range wanted {
		out.wanted = append(out.wanted, exchange.Wanted{Name: w.Name, Colour: w.Colour})
	}
	box, err = api.BoxPaints(tubes)
	return out, box, err
}

// onePainter is the painter of a name, or the only one there is.
func onePainter(ctx context.Context, s *store.Store, name string) (store.Painter, error) {
	if name != "" {
		p, err := s.PainterByName(ctx, name)
		if errors.Is(err, store.ErrNotFound) {
			return p, fmt.Errorf("--painter %.60q: nobody of that name paints here", name)
		}
		return p, err
	}
	all, err := s.Painters(ctx)
	switch {
	case err != nil:
		return store.Painter{}, errors.New("the database of DATABASE_URL does not answer, or holds no studio: start the application on it once")
	case len(all) == 0:
		return store.Painter{}, errors.New("nobody paints here yet: make a box in the application first")
	case len(all) > 1:
		return store.Painter{}, errors.New("several painters keep a box here: name one with --painter")
	}
	return all[0], nil
}

// boxFile opens a box that the application gave out as a file.
func boxFile(name string) (out studio, err error) {
	f, err := os.Open(name)
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, exchange.MostFileBytes+1))
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	rows, _, err := exchange.ReadBox(data)
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	var box []exchange.BoxPaint
	for _, r := range rows {
		if r.Wrong != "" {
			return out, fmt.Errorf("--box-file, %s: %s", r.Where, r.Wrong)
		}
		box = append(box, r.Paint)
	}
	out.whose = name
	out.box, out.prices, err = exchange.OpenBox(box)
	return out, err
}

// paintsNamed finds paints of the library.
func paintsNamed(flag string, ids []string) (out []*paint.Paint, err error) {
	for _, id := range ids {
		p, err := exchange.FindPaint(strings.TrimSpace(id))
		if err != nil {
			return nil, fmt.Errorf("--%s: %w", flag, err)
		}
		out = append(out, p)
	}
	return out, nil
}
