#!/bin/sh
# Installs the Debian package into a bare Debian 12, as root, uses it as a new user does, and
# removes it again: no file may be left.
#   scripts/check_package.sh PACKAGE.deb [FOLDER]   FOLDER: where the bare system is made, and kept for the next time
set -eu
package=$(realpath "$1")
folder=${2:-/var/tmp/elmcart-bare}
mirror=$(apt-get indextargets --format '$(SITE)' | head -n 1)
command -v debootstrap >/dev/null 2>&1 || apt-get install -y -qq --no-install-recommends debootstrap >/dev/null
if [ ! -f "$folder/made" ]; then
  rm -rf "$folder"
  debootstrap --variant=minbase bookworm "$folder" "$mirror" >/dev/null
  if ls /etc/apt/sources.list.d/*.sources >/dev/null 2>&1; then rm -f "$folder/etc/apt/sources.list"; else cp /etc/apt/sources.list "$folder/etc/apt/sources.list"; fi
  cp -r /etc/apt/sources.list.d /etc/apt/apt.conf.d /etc/apt/trusted.gpg.d "$folder/etc/apt/" 2>/dev/null || true
  cp /etc/resolv.conf "$folder/etc/resolv.conf"
  touch "$folder/made"
fi
cp "$package" "$folder/package.deb"
mount -t proc proc "$folder/proc"
trap 'umount "$folder/proc"' EXIT
inside() { chroot "$folder" /usr/bin/env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root DEBIAN_FRONTEND=noninteractive LC_ALL=C.UTF-8 sh -euc "$1"; }
inside 'apt-get update -qq && apt-get install -y -qq --no-install-recommends man-db bash bash-completion zsh fish python3 >/dev/null 2>&1'
# Minimal systems leave manual pages out.
rm -f "$folder/etc/dpkg/dpkg.cfg.d/docker" "$folder/etc/dpkg/dpkg.cfg.d/excludes"
inside 'apt-get install -y -qq /package.deb >/dev/null 2>&1'
echo "installed: $(inside 'elmcart --version')"
inside 'cd /root && rm -rf elmcart-demo && elmcart demo --quick --quiet | head -n 1'
inside 'cd /root && rm -rf elmcart-demo && elmcart demo --language python --quiet | tail -n 1'
inside 'test -s /root/elmcart-demo/reach.png && test -s /root/elmcart-demo/report.html'
inside 'man elmcart | grep -q "elmcart assess" && man elmcart-assess | grep -q -- --gate && echo "manual pages: read"'
inside "bash -c 'source /usr/share/bash-completion/bash_completion; _completion_loader elmcart; COMP_WORDS=(elmcart assess --format s); COMP_CWORD=3; _elmcart; test \"\${COMPREPLY[*]}\" = sarif && echo \"bash: completes\"'"
inside "fish -c 'complete -C \"elmcart assess --format s\"' | grep -q sarif && echo 'fish: completes'"
inside "zsh -fc 'fpath=(/usr/share/zsh/vendor-completions \$fpath); autoload -U compinit; compinit -D; print \$_comps[elmcart]' | grep -q _elmcart && echo 'zsh: knows it'"
inside 'test -s /usr/share/doc/elmcart/copyright && rm -rf /root/elmcart-demo /root/.cache/elmcart'
# What man has formatted is its own.
inside 'apt-get purge -y -qq elmcart >/dev/null 2>&1 && rm -f /package.deb && find / -xdev -name "*elmcart*" -not -path "/proc/*" -not -path "/var/cache/man/*" | grep . && exit 1 || echo "removed: nothing is left"'
