-- Two marks of a filament's water: what was entered as the one mark is what usually prints, clean is below it. And when
-- the dry box's hygrometer was read.
alter table material_values drop constraint material_values_key_check;
update material_values set key = 'usualWater' where key = 'printableWater';
alter table material_values add constraint material_values_key_check check (key in (
  'nozzleMinC', 'nozzleMaxC', 'lowestFlowC', 'shortMaxC', 'swapC', 'dryHighestC', 'strainAtBreak', 'curlMm', 'boreMinMm', 'boreGoodMm', 'matrixGCm3', 'glassC', 'meltC',
  'waterAt50', 'diffusion80', 'diffusionEa', 'usualWater', 'cleanWater', 'annealMinC', 'annealMaxC', 'annealMinH', 'annealMaxH', 'annealRamp'));

alter table settings add column dry_box_read_at timestamptz;
