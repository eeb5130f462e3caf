/** Files of other programs as people have them; the programs themselves take them (see the kernel tests). */

export const dnsmasqSample = [
  '# leases',
  'dhcp-range=set:staff,10.20.20.100,10.20.20.150,255.255.255.0,12h',
  'dhcp-range=10.20.40.0,static',
  'dhcp-host=02:00:5E:00:53:01,set:x,printer-9,10.20.20.9,infinite # by the door',
  'dhcp-host=02:00:5e:00:53:02,ignore',
  'host-record=nas.clinic.example.net,nas,10.20.30.9',
  'server=192.0.2.53',
].join('\n');

export const zoneSample = [
  '$ORIGIN clinic.example.net.',
  '@ 3600 IN SOA ns hostmaster ( 1 ; serial',
  '   7200 900 1209600 300 )',
  '@ IN NS nas',
  'nas     IN A 10.20.30.9 ; storage',
  '        300 IN AAAA 2001:db8::9',
  'www IN CNAME nas',
  'text IN TXT "a ; b"',
].join('\n');

export const nftSample = [
  'define staff = 10.20.20.0/24',
  'table inet filter {',
  '  set cams {',
  '    type ipv4_addr; flags interval',
  '    elements = { 10.20.50.0/24,',
  '      10.20.60.0/24, 10.20.70.0/24 }',
  '  }',
  '  chain input { type filter hook input priority 0; policy drop; }',
  '  chain extra { }',
  '  chain forward {',
  '    type filter hook forward priority 0; policy drop;',
  '    ct state established,related accept',
  '    iifname "vlan20" oifname "vlan30" tcp dport { 22, 8123 } counter packets 3 bytes 180 accept # storage',
  '    ip saddr $staff ip daddr @cams tcp dport 554 log prefix "cam " accept',
  '    ip saddr 10.20.20.10 ip daddr 10.20.30.11 drop comment "printer"',
  '    ip saddr 10.20.40.7 ip daddr 10.20.30.10 udp dport 53 accept',
  '    iifname "vlan80" oifname "wan0" accept',
  '    jump extra',
  '    iifname "vlan80" oifname "vlan20" accept',
  '  }',
  '}',
].join('\n');
