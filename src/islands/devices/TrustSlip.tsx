/** How a device comes to trust this machine, in plain words. */
export function TrustSlip({ url, fingerprint }: { url: string; fingerprint: string }) {
  return (
    <details className="slip" id="trust">
      <summary className="cursor-pointer text-xl font-semibold">
        When the device warns of this address
      </summary>
      <p className="mt-3">
        What goes between the devices is encrypted. This machine vouches for itself, and no browser knows it
        yet: at the first visit it warns. All pages work after “go on anyway”, but the camera, offline use and
        the screen that stays awake need trust. It is given once a device:
      </p>
      <ol className="mt-2 list-decimal space-y-1.5 pl-6">
        <li>
          On the device, open <strong className="break-all">{url}/authority.crt</strong> and let it save the
          certificate.
        </li>
        <li>
          In the device’s settings, search for “certificate”. On a tablet or phone it stands under Security
          (Install a certificate, CA certificate) or under General (Profile); on a computer, in the browser’s
          own settings under Privacy and security.
        </li>
        <li>
          Choose the file <span className="number">oculent-authority.crt</span>. Some devices then want it
          switched on once more, under About, Certificate trust.
        </li>
        <li>
          Compare the SHA-256 fingerprint that the device shows with this one. If they differ, do not trust
          it.
          <code
            className="number mt-1 block max-w-[34rem] break-all text-[0.95rem]"
            data-testid="fingerprint"
          >
            {fingerprint}
          </code>
        </li>
        <li>Close the browser on the device and open it again.</li>
      </ol>
      <p className="mt-2 text-faded">
        The authority can vouch for addresses of a home network and names ending in .local only, so trusting
        it puts nothing else at risk. To take it back, remove it where you installed it.
      </p>
    </details>
  );
}
