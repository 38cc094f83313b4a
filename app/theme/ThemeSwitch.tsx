import DarkModeOutlined from '@mui/icons-material/DarkModeOutlined'
import LightModeOutlined from '@mui/icons-material/LightModeOutlined'
import IconButton from '@mui/material/IconButton'
import Tooltip from '@mui/material/Tooltip'
import { useThemeChoice } from './useTheme'

/** Morning or Dusk. */
export function ThemeSwitch() {
  const { name, choose } = useThemeChoice()
  const other = name === 'morning' ? 'dusk' : 'morning'
  return (
    <Tooltip describeChild title={other === 'dusk' ? 'Dusk: dark, for the stage' : 'Morning: light'}>
      <IconButton aria-label={`Change to ${other}`} onClick={() => choose(other)}>
        {other === 'dusk' ? <DarkModeOutlined /> : <LightModeOutlined />}
      </IconButton>
    </Tooltip>
  )
}
