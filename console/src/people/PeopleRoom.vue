<script setup lang="ts">
import { t } from "@/language";
import { api } from "@/api/http";
import { onChanged } from "@/api/live";
import type { Grant, Group, Invitation, Person, ShareLink } from "@/api/types";
import { useAction } from "@/look/act";
import { day } from "@/look/clock";
import { useLoad } from "@/look/load";
import ConfirmButton from "@/look/ConfirmButton.vue";
import ProblemNote from "@/look/ProblemNote.vue";
import { usePlaces } from "@/places/places";
import { useSession } from "@/shell/session";
import { computed, ref } from "vue";
import GroupForm from "./GroupForm.vue";
import InviteForm from "./InviteForm.vue";
import PermissionForm from "./PermissionForm.vue";
import { RIGHTS } from "./rights";

const places = usePlaces();
const session = useSession();
const inviting = ref(false);
const grouping = ref<{ group?: Group }>();
const permitting = ref<{ person?: Person; group?: Group }>();
const { error, run } = useAction();
const { data, load } = useLoad(async () => {
  const [people, groups, invitations, links] = await Promise.all([
    api.get<Person[]>("people"),
    api.get<Group[]>("groups"),
    api.get<Invitation[]>("invitations"),
    api.get<ShareLink[]>("links"),
  ]);
  return { people, groups, invitations, links };
});
onChanged(["registry"], load);
const mayInvite = computed(() => places.places.some((place) => place.right === "manage"));

async function revoke(holder: Person | Group, grant: Grant) {
  await run(
    () => api.remove("grants/" + grant.id),
    t("{name} has no permission on {targetName} any more.", { name: holder.name, targetName: grant.targetName }),
  );
  await load();
}
async function removeGroup(group: Group) {
  await run(() => api.remove("groups/" + group.id), t("The group {name} is removed.", { name: group.name }));
  await load();
}
function done() {
  inviting.value = false;
  grouping.value = undefined;
  permitting.value = undefined;
  void load();
}
async function remove(person: Person) {
  await run(() => api.remove("people/" + person.id), t("{name} has no account any more.", { name: person.name }));
  await load();
}
async function withdrawInvitation(invitation: Invitation) {
  await run(() => api.remove("invitations/" + invitation.id), t("The invitation is withdrawn."));
  await load();
}
async function withdrawLink(link: ShareLink) {
  await run(() => api.remove("links/" + link.id), t("Withdrawn: the link no longer opens."));
  await load();
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>{{ t("People") }}</h1>
      <RouterLink v-if="session.owner" to="/people/trail">{{ t("Audit trail") }}</RouterLink>
      <el-button v-if="mayInvite" type="primary" @click="inviting = true">{{ t("Invite somebody") }}</el-button>
    </header>
    <ProblemNote :error="error" />
    <section class="sheet">
      <div v-for="person in data?.people" :key="person.id" class="line">
        <div>
          <strong>{{ person.name }}</strong> <span class="soft small">{{ person.email }}</span>
        </div>
        <div>
          <span v-if="person.owner">{{ t("owner: may do everything") }}</span>
          <span v-if="session.owner && person.id !== session.person?.id" class="leave">
            <ConfirmButton
              :says="
                t('{name} cannot sign in any more. What they made stays; their rights and links end.', {
                  name: person.name,
                })
              "
              link
              @confirm="remove(person)"
              >{{ t("Remove the account") }}</ConfirmButton
            >
          </span>
          <div v-for="grant in person.grants" :key="grant.id">
            {{ RIGHTS[grant.right] }} {{ grant.targetName }}
            <span v-if="grant.group" class="soft small">{{ t("by group {group}", { group: grant.group }) }}</span>
            <el-button v-else-if="mayInvite" link @click="revoke(person, grant)">{{ t("Revoke") }}</el-button>
          </div>
          <span v-if="!person.owner && !person.grants.length" class="soft">{{ t("no permissions") }}</span>
          <el-button v-if="mayInvite && !person.owner" link @click="permitting = { person }">{{
            t("Add a permission")
          }}</el-button>
        </div>
      </div>
    </section>
    <section v-if="data && (data.groups.length || session.owner)" class="sheet">
      <h2>{{ t("Groups") }}</h2>
      <p v-if="!data.groups.length" class="soft">
        {{ t("None. A group has permissions that all its members share, for example a night shift.") }}
      </p>
      <div v-for="group in data.groups" :key="group.id" class="line">
        <div>
          <strong>{{ group.name }}</strong>
          <div class="soft small">{{ group.members.map((member) => member.name).join(", ") || t("no members") }}</div>
        </div>
        <div>
          <span v-if="session.owner" class="leave">
            <el-button link @click="grouping = { group }">{{ t("Edit") }}</el-button>
            <ConfirmButton
              :says="t('The members of {name} lose the permissions that they have by it.', { name: group.name })"
              link
              @confirm="removeGroup(group)"
            />
          </span>
          <div v-for="grant in group.grants" :key="grant.id">
            {{ RIGHTS[grant.right] }} {{ grant.targetName }}
            <el-button v-if="mayInvite" link @click="revoke(group, grant)">{{ t("Revoke") }}</el-button>
          </div>
          <span v-if="!group.grants.length" class="soft">{{ t("no permissions") }}</span>
          <el-button v-if="mayInvite" link @click="permitting = { group }">{{ t("Add a permission") }}</el-button>
        </div>
      </div>
      <el-button v-if="session.owner" @click="grouping = {}">{{ t("New group") }}</el-button>
    </section>
    <section v-if="data?.invitations.length" class="sheet">
      <h2>{{ t("Invited, not yet here") }}</h2>
      <div v-for="one in data.invitations" :key="one.id" class="line">
        <div>
          <strong>{{ one.name }}</strong> <span class="soft small">{{ one.email }}</span>
        </div>
        <div>
          {{ RIGHTS[one.right] }} {{ one.targetName }}
          <span class="soft small">{{ t("until {day}", { day: day(one.expiresAt) }) }}</span>
          <el-button link @click="withdrawInvitation(one)">{{ t("Withdraw") }}</el-button>
        </div>
      </div>
    </section>
    <section v-if="data?.links.length" class="sheet">
      <h2>{{ t("Links handed out") }}</h2>
      <div v-for="link in data.links" :key="link.id" class="line">
        <div>
          <RouterLink :to="`/dashboards/${link.dashboardId}`">{{ link.dashboardName }}</RouterLink>
          <span class="soft small">{{ link.note }}</span>
        </div>
        <div>
          <span class="soft small">{{ t("until {end}", { end: link.until ? day(link.until) : t("withdrawn") }) }}</span>
          <el-button link @click="withdrawLink(link)">{{ t("Withdraw") }}</el-button>
        </div>
      </div>
    </section>
    <InviteForm v-if="inviting" @close="done" />
    <GroupForm v-if="grouping" :group="grouping.group" :people="data?.people ?? []" @close="done" />
    <PermissionForm v-if="permitting" :person="permitting.person" :group="permitting.group" @close="done" />
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 0.25rem 1rem;
  padding: 0.5rem 0;
}
.line + .line {
  border-top: 1px solid var(--line);
}
.leave {
  float: right;
}
@media (max-width: 720px) {
  .line {
    grid-template-columns: 1fr;
  }
}
</style>
