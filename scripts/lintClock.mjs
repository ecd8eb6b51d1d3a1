/** For the linter: physics has no clock and no dice, and a window takes the time from one place; they are passed in. */
const FORBIDDEN = {
  'Date.now': 'Take the time from the Clock that is passed in.',
  'performance.now': 'elapsedMs, from the clock.',
  'Math.random': 'No dice here.',
  'crypto.randomUUID': 'newId: this one is missing where a page did not come by https.',
}

const handedIn = {
  create: (context) => ({
    CallExpression(node) {
      const { object, property } = node.callee
      const message = FORBIDDEN[`${object?.name}.${property?.name}`]
      if (message) context.report({ node, message })
    },
    NewExpression(node) {
      if (node.callee.name === 'Date' && node.arguments.length === 0)
        context.report({ node, message: 'Take the time from the Clock.' })
    },
  }),
}

export default { meta: { name: 'clock' }, rules: { 'handed-in': handedIn } }
