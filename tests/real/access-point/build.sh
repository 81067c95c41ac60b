#!/bin/bash
# build.sh FOLDER - makes a bootable Wi-Fi access point out of untouched Debian packages.
#   No root needed: apt-get download + dpkg -x + cpio.  Out: FOLDER/out/vmlinux  FOLDER/out/initrd
# Needs on the host: apt-get, dpkg, cpio, xz, gzip, kmod, openssl.
set -euo pipefail
HERE="$(dirname "$(readlink -f "$0")")"
mkdir -p "$1"; cd "$1"
export PATH="$PATH:/usr/sbin:/sbin"
COMP=gzip
KPKG=${KPKG:-$(apt-cache depends linux-image-amd64 | awk '/Depends/{print $2; exit}')}
KVER=${KPKG#linux-image-}
PKGS="$KPKG busybox-static dash hostapd wpasupplicant iw openssh-server openssh-client wireless-regdb iproute2
 libc6 libcrypt1 libssl3 zlib1g libnl-3-200 libnl-genl-3-200 libnl-route-3-200
 tcpdump libpcap0.8 libdbus-1-3 libpcsclite1 libreadline8 libtinfo6
 libaudit1 libcap-ng0 libcom-err2 libgssapi-krb5-2 libkrb5-3 libk5crypto3 libkrb5support0 libkeyutils1
 libpam0g libselinux1 libpcre2-8-0 libsystemd0 libcap2 libgcrypt20 libgpg-error0 liblz4-1 liblzma5
 inetutils-telnetd libzstd1 libwrap0 libnsl2 libtirpc3 libbpf1 libelf1 libmnl0 libbsd0 libmd0 libgcc-s1"

# --- 1. fetch and unpack (cached in deb/ and stage/) -------------------------------------------
mkdir -p deb out
for p in $PKGS; do ls deb/${p}_*.deb >/dev/null 2>&1 || miss="${miss:-} $p"; done
[ -z "${miss:-}" ] || (cd deb && apt-get download $miss)
done=stage/.done-$KVER-$(echo $PKGS | cksum | cut -d' ' -f1)
if [ ! -e $done ]; then
  rm -rf stage; mkdir stage
  for p in $PKGS; do dpkg -x "$(ls -t deb/${p}_*.deb | head -1)" stage; done
  touch $done
fi

# --- 2. kernel: take the ELF out of the bzImage, qemu boots it by PVH (no XZ under TCG) --------
if [ ! -e out/vmlinux-$KVER ]; then
  bz=stage/boot/vmlinuz-$KVER
  for off in $(LC_ALL=C grep -aobP '\xFD7zXZ\x00' $bz | cut -d: -f1); do
    tail -c +$((off + 1)) $bz | xz -dc --single-stream > out/vmlinux.tmp 2>/dev/null || true
    [ "$(head -c 4 out/vmlinux.tmp | tail -c 3)" = ELF ] && break
  done
  mv out/vmlinux.tmp out/vmlinux-$KVER
fi
ln -sf vmlinux-$KVER out/vmlinux; ln -sf ../stage/boot/vmlinuz-$KVER out/vmlinuz

# --- 3. root file system -----------------------------------------------------------------------
rm -rf root
mkdir -p root/{bin,sbin,dev,proc,sys,run,tmp,cfg,etc/ssh,usr/bin,usr/sbin}
mkdir -p root/{lib/modules,lib/firmware,lib64,root,var/empty}
LD=stage/lib64/ld-linux-x86-64.so.2
LP=stage/lib/x86_64-linux-gnu:stage/usr/lib/x86_64-linux-gnu
cp stage/bin/busybox root/bin/busybox; ln -s dash root/bin/sh   # not ash: Debian's runs its own applets (ip) first
for b in usr/sbin/hostapd usr/sbin/hostapd_cli sbin/wpa_supplicant sbin/wpa_cli \
         usr/sbin/iw sbin/iw usr/bin/tcpdump usr/sbin/sshd usr/bin/ssh-keygen bin/ip bin/dash; do
  [ -e stage/$b ] || continue
  cp stage/$b root/$b
  $LD --library-path $LP --list stage/$b | awk '$2=="=>"{print $3}' >> out/libs.tmp
done
sort -u out/libs.tmp | while read -r l; do cp -L "$l" root/lib/; done; rm out/libs.tmp
cp -L $LD root/lib64/
cp -L stage/lib/firmware/regulatory.db-debian  root/lib/firmware/regulatory.db
cp -L stage/lib/firmware/regulatory.db.p7s-debian root/lib/firmware/regulatory.db.p7s
# modules in dependency order; modules.dep is not in the package, so depmod is needed once
[ -e stage/lib/modules/$KVER/modules.dep ] || depmod -b stage $KVER
: > root/lib/modules/order
usual='failover net_failover virtio_mmio virtio_pci virtio_net virtio_blk crc32c_generic ext4 bridge 8021q'
for m in ${MODS:-$usual ccm ctr cmac gcm mac80211_hwsim}; do
  line=$(grep -E "/$m\.ko:" stage/lib/modules/$KVER/modules.dep)
  for f in $(echo "$line" | sed 's/://' | awk '{for(i=NF;i>0;i--)print $i}'); do
    n=$(basename $f); [ -e root/lib/modules/$n ] && continue
    cp stage/lib/modules/$KVER/$f root/lib/modules/$n; echo $n >> root/lib/modules/order
  done
done
cp -r "$HERE/overlay/." root/; chmod +x root/init root/sbin/* root/bin/*
printf 'root:%s:19000:0:99999:7:::\nsshd:*:19000::::::\n' \
  "$(openssl passwd -6 -salt factory "${FACTORY_PASSWORD:-admin}")" > root/etc/shadow
chmod 600 root/etc/shadow

# --- 4. initrd ---------------------------------------------------------------------------------
case $COMP in gzip) z='gzip -9n';; zstd) z='zstd -19 -q';; lz4) z='lz4 -l -9';; none) z=cat;; esac
(cd root && find . | LC_ALL=C sort | cpio -o -H newc -R 0:0 --quiet) | $z > out/initrd.$COMP
ln -sf initrd.$COMP out/initrd
ls -lL out/vmlinux out/initrd; du -sm root | cut -f1
