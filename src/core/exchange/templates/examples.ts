/** Templates that come with the product: what people need beside settings, in nobody's syntax. */
import type { Template } from '../../model/template';

export const EXAMPLES: readonly Template[] = [
  {
    id: 'worklist',
    name: 'Worklist',
    end: '.txt',
    text: `{{ name }}: what to set
{{ modeName }}, address {{ mac }}

{% for tree in trees -%}
- {% if tree.kind == "vlan" %}VLAN {{ tree.number }}{% elsif tree.kind == "instance" %}Instance {{ tree.number }} (VLANs {{ tree.vlans }}){% else %}The common tree{% endif %}: bridge priority {{ tree.priority }}
{% endfor %}
{% for bundle in bundles -%}
- Bundle {{ bundle.bundleNumber }} of ports {{ bundle.members | join: ", " }}: {{ bundle.mode }}
{% endfor -%}
{% for port in ports -%}
{% if port.to or port.up == false -%}
- {{ port.interface }}{% if port.to %}, to {{ port.to }}{% endif %}: {% if port.bundle %}member of {{ port.bundle }}{% elsif port.vlans.mode == "access" %}VLAN {{ port.vlans.vlan }}, untagged{% else %}VLANs {{ port.vlans.allowed | ranges: ", ", " to " }}, {{ port.vlans.native }} untagged{% endif %}{% unless port.up %}, set down{% endunless %}{% if port.edge %}, edge port{% endif %}{% if port.bpduGuard %}, BPDU guard{% endif %}{% if port.rootGuard %}, root guard{% endif %}
{% for tree in port.trees -%}
{% if tree.cost -%}
  cost {{ tree.cost }} in {{ tree.tree }}
{% endif -%}
{% endfor -%}
{% endif -%}
{% endfor -%}
`,
  },
  {
    id: 'labels',
    name: 'Labels for cables',
    end: '.labels.txt',
    text: `{% for port in ports -%}
{% if port.to -%}
{{ name | one_line }} {{ port.interface }}
  to {{ port.to | one_line }}
  {{ port.speed }} Mb/s{% if port.bundle %}, {{ port.bundle }}{% endif %}

{% endif -%}
{% endfor -%}
`,
  },
  {
    id: 'ports',
    name: 'Ports as CSV',
    end: '.ports.csv',
    text: `switch,port,to,speed,VLANs,untagged,edge,bundle
{% for port in ports -%}
{{ name | csv }},{{ port.interface | csv }},{{ port.to | csv }},{{ port.speed }},{% if port.vlans.mode == "access" %}{{ port.vlans.vlan }},{{ port.vlans.vlan }}{% else %}{{ port.vlans.allowed | csv }},{{ port.vlans.native }}{% endif %},{{ port.edge }},{{ port.bundle | csv }}
{% endfor -%}
`,
  },
];
