package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"gyrophane/core/paint"
	"gyrophane/files"
	"gyrophane/store"
	"gyrophane/studio"
)

// openOwner finds a painter's box and wanted colours in the database of
// DATABASE_URL; without one it is the made-up demo studio.
func openOwner(ctx context.Context, name string) (out studio.Owner, err error) {
	url := os.Getenv("DATABASE_URL")
	switch {
	case url == "" && name != "":
		return out, errors.New("--painter: DATABASE_URL is not set, so there is no painter to look for")
	case url == "":
		out, err = studio.DemoOwner()
		out.Name = "the made-up demo studio, for DATABASE_URL is not set"
		return out, err
	}
	s, err := store.Open(url)
	if err != nil {
		return out, err
	}
	defer s.Close()
	p, err := onePainter(ctx, s, name)
	if err != nil {
		return out, err
	}
	return studio.OwnerOf(ctx, s, p)
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
func boxFile(name string) (out studio.Owner, err error) {
	f, err := os.Open(name)
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, files.MostFileBytes+1))
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	rows, _, err := files.ReadBox(data)
	if err != nil {
		return out, fmt.Errorf("--box-file: %w", err)
	}
	var tubes []paint.Tube
	for _, r := range rows {
		if r.Wrong != "" {
			return out, fmt.Errorf("--box-file, %s: %s", r.Where, r.Wrong)
		}
		tubes = append(tubes, r.Tube)
	}
	out.Name = name
	out.Box, out.Prices, err = studio.OpenTubes(tubes)
	return out, err
}

// paintsNamed finds paints of the library.
func paintsNamed(flag string, ids []string) (out []*paint.Paint, err error) {
	for _, id := range ids {
		p, err := paint.Find(strings.TrimSpace(id))
		if err != nil {
			return nil, fmt.Errorf("--%s: %w", flag, err)
		}
		out = append(out, p)
	}
	return out, nil
}
