package api

import (
	"context"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// mostPictures is how many pictures are decoded at once, some hundreds of megabytes each.
const mostPictures = 2

// pictures are the turns in which pictures are read: one for each painter, so that nobody takes
// them from all others, and so many in all.
type pictures struct {
	all chan struct{}
	mu  sync.Mutex
	own map[int64]chan struct{} // there are as many as painters
}

func newPictures() *pictures {
	return &pictures{all: make(chan struct{}, mostPictures), own: map[int64]chan struct{}{}}
}

func (p *pictures) ofPainter(id int64) chan struct{} {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.own[id] == nil {
		p.own[id] = make(chan struct{}, 1)
	}
	return p.own[id]
}

// take waits for the painter's turn, then for one of all.
func (p *pictures) take(ctx context.Context, painter int64) (release func(), err error) {
	own := p.ofPainter(painter)
	select {
	case own <- struct{}{}:
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	select {
	case p.all <- struct{}{}:
		return func() { <-p.all; <-own }, nil
	case <-ctx.Done():
		<-own
		return nil, ctx.Err()
	}
}

// reading takes one of the turns in which pictures are read: each takes much memory. It ends
// with the asker's connection, and with the time of the request.
func (s *Server) reading(ctx context.Context, read func(ctx context.Context) error) error {
	there, done := watched(ctx)
	defer done()
	if until, bounded := ctx.Deadline(); bounded {
		var cancel context.CancelFunc
		there, cancel = context.WithDeadline(there, until)
		defer cancel()
	}
	release, err := s.pictures.take(there, painter(ctx).ID)
	if err != nil {
		return huma.Error503ServiceUnavailable("Too many photos are being read just now; try again in a moment.")
	}
	defer release()
	return read(there)
}
