export default {
  nav: {
    home: 'Home',
    model: 'Model',
    data: 'Data',
    services: 'Services',
    activity: 'Activity',
    releases: 'Releases',
  },
  signIn: {
    title: 'Sandpiper',
    lead: 'Business objects as web services',
    name: 'Name',
    password: 'Password',
    submit: 'Sign in',
    out: 'Sign out',
  },
  home: {
    title: 'Where things stand',
    release: 'Live release',
    none: 'Nothing is released yet',
    waiting: 'Draft changes waiting',
    errors: 'Errors in the draft',
    services: 'Services published',
    records: 'Records',
    latest: 'Done lately',
    next: 'Next steps',
  },
}
