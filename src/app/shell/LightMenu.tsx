import { Moon, Sun } from 'lucide-react';
import { Menu, MenuTrigger } from 'react-aria-components';
import { setLight } from '../state/device';
import { useDark } from '../state/light';
import { useApp, type Light } from '../state/store';
import { SignButton } from '../widgets/controls';
import { Drop, MenuLine } from '../widgets/Pick';

const LIGHTS: readonly (readonly [id: Light, name: string])[] = [
  ['light', 'Light'],
  ['dark', 'Dark'],
  ['system', 'As the system has it'],
];

/** The light of the desk. */
export function LightMenu() {
  const light = useApp((s) => s.light);
  const dark = useDark();
  return (
    <MenuTrigger>
      <SignButton aria-label="Light of the desk">{dark ? <Moon size={18} /> : <Sun size={18} />}</SignButton>
      <Drop>
        <Menu
          aria-label="Light of the desk"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[light]}
          onAction={(key) => setLight(key as Light)}
        >
          {LIGHTS.map(([id, name]) => (
            <MenuLine key={id} id={id} textValue={name}>
              {name}
            </MenuLine>
          ))}
        </Menu>
      </Drop>
    </MenuTrigger>
  );
}
