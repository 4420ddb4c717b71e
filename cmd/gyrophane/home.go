package main

import (
	"cmp"
	"errors"
	"fmt"
	"net"
	"net/netip"
	"os"
	"slices"
	"strings"
)

// findAddress is what --lan is without an address: the private one by which this machine is reached.
const findAddress = "find"

// homeAddress is where a server at home listens: the address that was named, or the one by which this
// machine is reached.
func homeAddress(named string) (netip.Addr, error) {
	if named == findAddress {
		return chooseHome(privateAddresses(), routed())
	}
	at, err := netip.ParseAddr(named)
	if err != nil {
		return at, fmt.Errorf("--lan=%.60s: give a private address of this machine, like 192.168.1.20, or none", named)
	}
	at = at.Unmap()
	// A second loopback address is for trying it out on this machine alone.
	if !at.IsPrivate() && !at.IsLinkLocalUnicast() && !at.IsLoopback() {
		return at, fmt.Errorf("--lan=%s: that is no private address; where anybody can reach the server use --public, behind TLS", at)
	}
	return at, nil
}

// placed is an address and the network interface that has it.
type placed struct {
	address netip.Addr
	on      string
}

// virtual are how interfaces are called that lead to no other device of the house.
var virtual = []string{"docker", "br-", "veth", "virbr", "vmnet", "vboxnet", "lxc", "tun", "tap", "wg"}

// chooseHome is the private address that packets leave by, or else the first that is not virtual.
func chooseHome(of []placed, routed netip.Addr) (netip.Addr, error) {
	var real []placed
	for _, p := range of {
		if p.address.IsPrivate() && !slices.ContainsFunc(virtual, func(begins string) bool { return strings.HasPrefix(p.on, begins) }) {
			real = append(real, p)
		}
	}
	if len(real) == 0 {
		return netip.Addr{}, errors.New("--lan: this machine has no private address: connect it to the network at home, or name its address, like --lan=192.168.1.20")
	}
	first := slices.MinFunc(real, func(a, b placed) int {
		return cmp.Or(rank(a.address == routed)-rank(b.address == routed), rank(a.address.Is4())-rank(b.address.Is4()))
	})
	return first.address, nil
}

func rank(first bool) int {
	if first {
		return 0
	}
	return 1
}

// privateAddresses are the private addresses of interfaces that are up.
func privateAddresses() (out []placed) {
	all, err := net.Interfaces()
	if err != nil {
		return nil
	}
	for _, one := range all {
		if one.Flags&net.FlagUp == 0 || one.Flags&net.FlagLoopback != 0 {
			continue
		}
		addresses, err := one.Addrs()
		if err != nil {
			continue
		}
		for _, a := range addresses {
			if p, err := netip.ParsePrefix(a.String()); err == nil && p.Addr().Unmap().IsPrivate() {
				out = append(out, placed{p.Addr().Unmap(), one.Name})
			}
		}
	}
	return out
}

// routed is the address that this machine's packets to others leave by. Nothing is sent to find out.
func routed() netip.Addr {
	c, err := net.Dial("udp4", "192.0.2.1:9") // an address that is nobody's, RFC 5737
	if err != nil {
		return netip.Addr{}
	}
	defer c.Close()
	return c.LocalAddr().(*net.UDPAddr).AddrPort().Addr().Unmap()
}

// namesAt are the hosts that a server at an address goes by.
func namesAt(at netip.Addr) []string {
	names := []string{at.String()}
	if host, err := os.Hostname(); err == nil && host != "" {
		host, _, _ = strings.Cut(strings.ToLower(host), ".")
		names = append(names, host, host+".local")
	}
	return names
}
