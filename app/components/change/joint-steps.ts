/** Steps at the joint of nozzle, block and heat break, which are drawn. */
export const JOINT_STEPS: readonly string[] = ['out', 'look in', 'in', 'tight', 'resnug', 'leaks']
