'use client';

import type { Device } from '@/core/plan';
import { useSession } from '../../session/context';
import { Form, FormLine, useTypedForm } from '../../parts/form';

/** Names in the configuration and indexes inside, filled by pattern for all ports of the box. */
export function PortPatterns({ device }: { device: Device }) {
  const session = useSession();
  const form = useTypedForm({ name: '', index: '' }, ({ name, index }) => {
    session.perform({
      operation: 'mapPorts',
      input: {
        device: device.id,
        ...(name.trim() ? { name } : {}),
        ...(index.trim() ? { index } : {}),
      },
    });
  });
  return (
    <div className="pt-3 text-[14px]">
      <p className="font-bold">Port names by pattern</p>
      <Form form={form}>
        <FormLine mono name="name" label="in the configuration" placeholder="ge{n}" />
        <FormLine mono name="index" label="index inside" placeholder="{24-n}" />
        <button type="submit" className="button">
          Fill
        </button>
      </Form>
    </div>
  );
}
