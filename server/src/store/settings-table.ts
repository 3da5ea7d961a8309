/**
 * Reads and writes the bar's settings, each a named JSON value.
 */
import type { EntityManager } from 'typeorm';
import { SettingRow } from './rows';

export async function readSetting<Value>(manager: EntityManager, name: string): Promise<Value | null> {
  const row = await manager.findOneBy(SettingRow, { name });
  return row ? (JSON.parse(row.body) as Value) : null;
}

export async function writeSetting(manager: EntityManager, name: string, value: unknown): Promise<void> {
  await manager.save(SettingRow, { name, body: JSON.stringify(value) });
}
