import { IceCandidate, isSessionDescription, MAX_DESCRIPTION, sendsNothing } from './index.js';

/** The first offer of RFC 8829, section 7.1, as it is printed there, shortened to what differs; lines end as RFC 8866 has it. */
const OFFER = [
  'v=0',
  'o=- 4962303333179871722 1 IN IP4 0.0.0.0',
  's=-',
  't=0 0',
  'a=ice-options:trickle ice2',
  'a=group:BUNDLE a1 v1',
  'a=group:LS a1 v1',
  'm=audio 10100 UDP/TLS/RTP/SAVPF 96 0 8 97 98',
  'c=IN IP4 203.0.113.100',
  'a=mid:a1',
  'a=sendrecv',
  'a=rtpmap:96 opus/48000/2',
  'a=extmap:1 urn:ietf:params:rtp-hdrext:sdes:mid',
  'a=msid:47017fee-b6c1-4162-929c-a25110252400 f83006c5-a0ff-4e0a-9ed9-d3e6747be7d9',
  'a=ice-ufrag:ETEn',
  'a=ice-pwd:OtSK0WpNtpUjkY4+86js7ZQl',
  'a=setup:actpass',
  'a=rtcp-mux',
  'a=candidate:1 1 udp 2113929471 203.0.113.100 10100 typ host',
  'm=video 0 UDP/TLS/RTP/SAVPF 102 103 107',
  'c=IN IP4 203.0.113.100',
  'a=bundle-only',
  'a=mid:v1',
  'a=sendrecv',
  'a=rtpmap:102 VP8/90000',
  '',
].join('\r\n');

describe('session descriptions', () => {
  it('are read as RFC 8829 and RFC 8866 print them', () => {
    expect(isSessionDescription(OFFER)).toBeTrue();
    // RFC 8866, section 5, its own example has what browsers don't send: `e=` before `t=`. It is a description all the same.
    const printed = [
      ...['v=0', 'o=jdoe 3724394400 3724394405 IN IP4 198.51.100.1', 's=Call to John Smith'],
      ...['i=SDP Offer #1', 'u=http://www.jdoe.example.com/home.html'],
      ...['e=Jane Doe <jane@jdoe.example.com>', 'p=+1 617 555-6011', 'c=IN IP4 198.51.100.1'],
      ...['t=0 0', 'm=audio 49170 RTP/AVP 0', 'm=audio 49180 RTP/AVP 0'],
      ...['m=video 51372 RTP/AVP 99', 'c=IN IP6 2001:db8::2', 'a=rtpmap:99 h263-1998/90000', ''],
    ].join('\r\n');
    expect(isSessionDescription(printed)).toBeTrue();
  });

  it('that are none, or too much, aren’t taken', () => {
    for (const wrong of [
      '',
      'v=0\r\n',
      OFFER.replaceAll('\r\n', '\n'),
      OFFER.slice(0, -2),
      OFFER.replace('v=0', 'v=1'),
      OFFER.replace('s=-', 'hello'),
      OFFER.replace('s=-', 's=\0'),
      OFFER.replace('m=audio', 'm=message'),
      OFFER + 'm=audio 9 UDP/TLS/RTP/SAVPF 111\r\n'.repeat(7),
      OFFER + 'a=x\r\n'.repeat(MAX_DESCRIPTION / 4),
    ])
      expect(isSessionDescription(wrong)).withContext(wrong.slice(0, 80)).toBeFalse();
  });

  it('say whether anything is sent', () => {
    expect(sendsNothing(OFFER)).toBeFalse();
    expect(sendsNothing(OFFER.replaceAll('a=sendrecv', 'a=recvonly'))).toBeTrue();
    expect(sendsNothing(OFFER.replaceAll('a=sendrecv', 'a=inactive'))).toBeTrue();
    // One of two is enough; what isn't said goes both ways, unless it is said for all.
    expect(sendsNothing(OFFER.replace('a=sendrecv', 'a=recvonly'))).toBeFalse();
    const unsaid = OFFER.replaceAll('a=sendrecv\r\n', '');
    expect(sendsNothing(unsaid)).toBeFalse();
    expect(sendsNothing(unsaid.replace('t=0 0', 't=0 0\r\na=recvonly'))).toBeTrue();
    expect(sendsNothing(OFFER.replaceAll('a=sendrecv', 'a=sendrecv\r\na=recvonly'))).toBeFalse();
    const data = 'm=application 9 UDP/DTLS/SCTP webrtc-datachannel\r\n';
    expect(sendsNothing(OFFER.replaceAll('a=sendrecv', 'a=recvonly') + data)).toBeFalse();
  });

  it('say where a window is reached, as RFC 8839 prints it', () => {
    const reads = (candidate: string): boolean =>
      IceCandidate.safeParse({
        ...{ candidate, sdpMid: 'a1', sdpMLineIndex: 0, usernameFragment: 'ETEn' },
      }).success;
    for (const printed of [
      // RFC 8839, section 5.1, and of a TCP one RFC 6544, section 4.5.
      'candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ host',
      'candidate:2 1 UDP 1694498815 192.0.2.3 45664 typ srflx raddr 10.0.1.1 rport 8998',
      'candidate:1 1 TCP 2128609279 10.0.1.1 9 typ host tcptype active',
      // An address that is kept from others (draft-ietf-mmusic-mdns-ice-candidates), with what Chromium adds.
      'candidate:2597 1 udp 2113937151 9f3a-7c.local 53427 typ host generation 0 ufrag ETEn network-cost 999',
      'candidate:1 1 UDP 2130706431 2001:db8::2 8998 typ host',
      // No more of that kind.
      '',
    ])
      expect(reads(printed)).withContext(printed).toBeTrue();
    for (const wrong of [
      'a=candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ host',
      'candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ guess',
      'candidate:1 1 UDP 2130706431 10.0.1.1 8998',
      'candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ host\r\na=x',
      `candidate:1 1 UDP 2130706431 10.0.1.1 8998 typ host${' a'.repeat(25)}`,
    ])
      expect(reads(wrong)).withContext(wrong).toBeFalse();
  });
});
