/** The programs of an archive that holds a plan as a running network: what makes it, and what is asked in it. */

/** Builds, asks and takes down. POSIX sh; everything it makes is named with a prefix, so that two can stand beside each other. */
export const LAB_SCRIPT = `#!/bin/sh
# Builds the plan as a network of namespaces on this machine. Nothing of the machine's own network is touched.
# Needs root, iproute2 and nftables; python3 to ask the questions, dnsmasq to lease addresses.
set -eu
cd "$(dirname "$0")"
LAB=\${LAB:-lab}
RUN=\${RUN:-/run/dianome-$LAB}

usage() {
  echo "usage: $0 up | down | list | ask | shell NAME | join VLAN"
  echo "  up           builds the network"
  echo "  ask          asks the kept questions and says what came of each"
  echo "  list         the hosts with their addresses"
  echo "  shell NAME   a shell on a host, for ping, captures and the like"
  echo "  join VLAN    leases an address on a guest in a segment, and shows it (needs udhcpc)"
  echo "  down         takes everything away again"
  exit 2
}
need() { command -v "$1" > /dev/null || { echo "$1 is missing; install $2." >&2; exit 1; }; }
in_host() { host=$1; shift; ip netns exec "$LAB-$host" "$@"; }

start_leases() {
  command -v dnsmasq > /dev/null || return 0
  for host in $(cut -f1 hosts.tsv); do
    [ -s "hosts/$host/dnsmasq.conf" ] || continue
    in_host "$host" dnsmasq --conf-file="$PWD/hosts/$host/dnsmasq.conf" --pid-file="$RUN/$host.pid" \\
      --dhcp-leasefile="$RUN/$host.leases" --user=root --no-resolv --no-hosts 2> "$RUN/$host.log" || cat "$RUN/$host.log" >&2
  done
}
stop_programs() {
  for pid in "$RUN"/*.pid; do
    [ ! -s "$pid" ] || kill "$(cat "$pid")" 2> /dev/null || true
    rm -f "$pid"
  done
  rm -f "$RUN"/*.ready
}

up() {
  need ip iproute2; need nft nftables
  [ "$(id -u)" = 0 ] || { echo "This has to run as root." >&2; exit 1; }
  [ ! -e "$RUN" ] || { echo "It stands already; take it down first with: $0 down" >&2; exit 1; }
  mkdir -m 700 "$RUN"
  trap 'echo "It could not be built; taking it down." >&2; down' EXIT
  for host in $(cut -f1 hosts.tsv); do
    ip netns add "$LAB-$host"
    ip -n "$LAB-$host" link set lo up
    in_host "$host" sh "$PWD/hosts/$host/settings.sh"
  done
  n=0
  while read -r a a_name b b_name; do
    n=$((n + 1))
    ip link add "x$$a$n" netns "$LAB-$a" type veth peer name "x$$b$n" netns "$LAB-$b"
    ip -n "$LAB-$a" link set "x$$a$n" name "$a_name" up
    ip -n "$LAB-$b" link set "x$$b$n" name "$b_name" up
  done < cables.tsv
  for host in $(cut -f1 hosts.tsv); do
    [ ! -s "hosts/$host/links" ] || ip -n "$LAB-$host" -batch "hosts/$host/links"
  done
  for host in $(cut -f1 hosts.tsv); do
    # A route that the kernel refuses is one that no packet takes.
    [ ! -s "hosts/$host/routes" ] || ip -n "$LAB-$host" -force -batch "hosts/$host/routes" > /dev/null 2>&1 || true
    [ ! -s "hosts/$host/rules.nft" ] || in_host "$host" nft -f "hosts/$host/rules.nft"
  done
  start_leases
  trap - EXIT
  echo "$(wc -l < hosts.tsv | tr -d ' ') hosts and $n cables stand."
}

down() {
  stop_programs
  for host in $(cut -f1 hosts.tsv) joined; do
    ip netns del "$LAB-$host" 2> /dev/null || true
  done
  rm -rf "$RUN"
}

# Whether a question is answered; one that should be is put three times.
hear() {
  for _ in 1 2 3; do
    if in_host "$1" python3 "$PWD/host.py" call "$2" "$4" "$3" < /dev/null; then echo yes; return; fi
    [ "$5" = yes ] || break
  done
  echo no
}

ask() {
  need python3 python3
  [ -e "$RUN" ] || { echo "It does not stand; build it with: $0 up" >&2; exit 1; }
  # Nobody else listens meanwhile.
  stop_programs
  ports=$(cut -f4 questions.tsv | sort -u | tr '\\n' ' ')
  for host in $(cut -f1 hosts.tsv); do
    # Whoever has an address listens on every port that is asked for.
    ip netns exec "$LAB-$host" python3 "$PWD/host.py" serve "$RUN/$host.ready" $ports < /dev/null > /dev/null 2>&1 &
    echo $! > "$RUN/$host.serve.pid"
  done
  # Before everybody listens a call that is not answered says nothing.
  for host in $(cut -f1 hosts.tsv); do
    tries=0
    until [ -e "$RUN/$host.ready" ]; do
      tries=$((tries + 1))
      [ $tries -lt 600 ] || { stop_programs; echo "$host does not listen." >&2; exit 1; }
      sleep 0.1
    done
  done
  # Who is not answered waits; so several are asked at once.
  n=0; calls=""
  while IFS="$(printf '\\t')" read -r from to protocol port answers _; do
    n=$((n + 1))
    hear "$from" "$to" "$protocol" "$port" "$answers" > "$RUN/$n.heard" &
    calls="$calls $!"
    [ $((n % 8)) != 0 ] || { wait $calls; calls=""; }
  done < questions.tsv
  [ -z "$calls" ] || wait $calls
  n=0; differing=0
  while IFS="$(printf '\\t')" read -r from to protocol port answers wanted text; do
    n=$((n + 1))
    heard=$(cat "$RUN/$n.heard"); rm "$RUN/$n.heard"
    said=as-expected
    [ "$heard" = "$answers" ] || { said=DIFFERS; differing=$((differing + 1)); }
    meant=""
    [ "$answers" = "$wanted" ] || meant=" (the plan does not do what is wanted)"
    echo "$said: $text: answers $heard, by the plan $answers$meant"
  done < questions.tsv
  stop_programs
  start_leases
  echo "$(wc -l < questions.tsv | tr -d ' ') asked, $differing differ."
  [ "$differing" = 0 ]
}

join() {
  need udhcpc udhcpc
  line=$(grep -m1 "	$1	" sockets.tsv || true)
  [ -n "$line" ] || { echo "There is no socket in VLAN $1; there are: $(cut -f2 sockets.tsv | tr '\\n' ' ')" >&2; exit 1; }
  box=$(echo "$line" | cut -f1); wire=$(echo "$line" | cut -f3)
  ip netns del "$LAB-joined" 2> /dev/null || true
  ip netns add "$LAB-joined"
  ip link add "j$$a" netns "$LAB-joined" type veth peer name "j$$b" netns "$LAB-$box"
  ip -n "$LAB-$box" link set "j$$b" master "$wire" up
  ip -n "$LAB-joined" link set "j$$a" name eth0 up
  printf '#!/bin/sh\\n[ "$1" = bound ] && ip addr add "$ip/$mask" dev "$interface" && for r in $router; do ip route add default via "$r"; done; exit 0\\n' > "$RUN/bound.sh"
  chmod 755 "$RUN/bound.sh"
  in_host joined udhcpc -i eth0 -n -q -t 4 -T 2 -s "$RUN/bound.sh" 2>&1 | tail -1
  in_host joined ip -br addr show eth0
}

case "\${1:-}" in
  up) up ;;
  down) down ;;
  ask) ask ;;
  list) cat hosts.tsv ;;
  shell) [ $# = 2 ] || usage; exec ip netns exec "$LAB-$2" "\${SHELL:-/bin/sh}" ;;
  join) [ $# = 2 ] || usage; join "$2" ;;
  *) usage ;;
esac
`;

/** Listens on ports, and calls others. */
export const HOST_SCRIPT = `import socket, subprocess, sys, threading, time

def own():
    """The addresses of this host; a box with several answers from the one it was asked at."""
    said = subprocess.run(['ip', '-o', 'addr'], capture_output=True, text=True).stdout
    # A plan may give one address to two interfaces of a box.
    return {line.split()[3].split('/')[0] for line in said.splitlines() if ' inet' in line and 'scope link' not in line}

def family(address):
    return socket.AF_INET6 if ':' in address else socket.AF_INET

# Until when an address is tried for, all of them together.
PATIENCE = time.monotonic() + 20

def bound(server, address, port):
    """The socket at an address; None where it cannot be had. What was stopped a moment ago may still hold it."""
    while True:
        try:
            server.bind((address, port))
            return server
        except OSError:
            if time.monotonic() > PATIENCE:
                return None
            time.sleep(0.1)

def stream(port):
    server = socket.socket(socket.AF_INET6, socket.SOCK_STREAM)
    server.setsockopt(socket.IPPROTO_IPV6, socket.IPV6_V6ONLY, 0)
    server.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    if bound(server, '::', port):
        server.listen(64)
        return server

def accept(server):
    while True:
        try:
            client, _ = server.accept()
            client.sendall(b'here')
            client.close()
        except OSError:
            pass

def datagram(address, port):
    return bound(socket.socket(family(address), socket.SOCK_DGRAM), address, port)

def answer(server):
    while True:
        _, sender = server.recvfrom(64)
        server.sendto(b'here', sender)

def serve(ready, ports):
    sockets = [(accept, stream(port)) for port in ports]
    sockets += [(answer, datagram(address, port)) for address in own() for port in ports]
    for work, server in sockets:
        if server:
            threading.Thread(target=work, args=(server,)).start()
    open(ready, 'w').close()

def call(address, port, protocol):
    if protocol == 'icmp':
        return subprocess.run(['ping', '-n', '-c', '1', '-W', '2', address], stdout=subprocess.DEVNULL).returncode == 0
    kind = socket.SOCK_STREAM if protocol == 'tcp' else socket.SOCK_DGRAM
    with socket.socket(family(address), kind) as client:
        client.settimeout(2.5)
        try:
            client.connect((address, port))
            if protocol == 'udp':
                client.send(b'?')
            return client.recv(64) == b'here'
        except OSError:
            return False

if sys.argv[1] == 'serve':
    serve(sys.argv[2], [int(port) for port in sys.argv[3:]])
else:
    sys.exit(0 if call(sys.argv[2], int(sys.argv[3]), sys.argv[4]) else 1)
`;
