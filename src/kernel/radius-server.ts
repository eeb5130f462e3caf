/** A server with nothing but what is needed to read the two files. */
export const serverSettings = (folder: string): string => `
prefix = /usr
localstatedir = ${folder}
logdir = ${folder}
run_dir = ${folder}
libdir = /usr/lib/freeradius
log {
  destination = stdout
}
security {
  reject_delay = 0
}
thread pool {
  start_servers = 1
  max_servers = 2
  min_spare_servers = 1
  max_spare_servers = 1
}
$INCLUDE ${folder}/clients.conf
modules {
  files {
    filename = ${folder}/authorize
    key = "%{User-Name}"
  }
  eap {
    default_eap_type = md5
    md5 {
    }
  }
}
server default {
  listen {
    type = auth
    ipaddr = *
    port = 1812
  }
  authorize {
    files
    eap
  }
  authenticate {
    eap
  }
}
`;
