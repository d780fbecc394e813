import {
  ApiOutlined,
  AppstoreOutlined,
  CloudServerOutlined,
  FileDoneOutlined,
  FolderOutlined,
  HistoryOutlined,
  HomeOutlined,
  LockOutlined,
  NotificationOutlined,
  RocketOutlined,
  TableOutlined,
} from '@ant-design/icons-vue'
import { computed } from 'vue'
import { useSession } from './session'

const PAGES = [
  { path: '/', name: 'home', title: 'Home', icon: HomeOutlined, duty: 'records' },
  { path: '/packages', name: 'packages', title: 'Packages', icon: FolderOutlined, duty: 'design' },
  { path: '/model', name: 'model', title: 'Model', icon: AppstoreOutlined, duty: 'design' },
  { path: '/data', name: 'data', title: 'Data', icon: TableOutlined, duty: 'records' },
  { path: '/services', name: 'services', title: 'Services', icon: CloudServerOutlined, duty: 'design' },
  {
    path: '/connections',
    name: 'connections',
    title: 'Connections',
    icon: ApiOutlined,
    duty: 'design operate',
  },
  { path: '/webhooks', name: 'webhooks', title: 'Webhooks', icon: NotificationOutlined, duty: 'operate' },
  { path: '/activity', name: 'activity', title: 'Activity', icon: HistoryOutlined, duty: 'design' },
  { path: '/access', name: 'access', title: 'Access', icon: LockOutlined, duty: 'access' },
  {
    path: '/requirements',
    name: 'requirements',
    title: 'Requirements',
    icon: FileDoneOutlined,
    duty: 'design',
  },
  { path: '/releases', name: 'releases', title: 'Releases', icon: RocketOutlined, duty: 'design' },
]

/** The pages that whoever is signed in may see, in the order of the menu. */
export function usePages() {
  const { me, may } = useSession()
  return computed(() =>
    PAGES.filter((page) => (page.duty === 'records' ? me.value?.records : page.duty.split(' ').some(may))),
  )
}
