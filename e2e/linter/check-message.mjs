// Takes a message as a receiver would, with the public libraries of both standards:
// node check-message.mjs SECRET ID TIMESTAMP SIGNATURE < BODY
import { HTTP } from 'cloudevents'
import { readFileSync } from 'node:fs'
import { Webhook } from 'standardwebhooks'

const [secret, id, timestamp, signature] = process.argv.slice(2)
const body = readFileSync(0, 'utf8')

new Webhook(secret).verify(body, {
  'webhook-id': id,
  'webhook-timestamp': timestamp,
  'webhook-signature': signature,
})
const event = HTTP.toEvent({ headers: { 'content-type': 'application/cloudevents+json' }, body })
event.validate()
console.log(`${event.type} about ${event.subject}, ${event.data.nights} nights`)
